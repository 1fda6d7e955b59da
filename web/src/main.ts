import '@fontsource-variable/source-sans-3';
import 'ant-design-vue/dist/reset.css';
import './styles.css';
import { beginEarly } from './engine/early';

// It is small, and runs before all else is loaded: what an effect's page waits for longest begins here.
if (location.pathname.startsWith('/effects/')) beginEarly();
void import('./application');
