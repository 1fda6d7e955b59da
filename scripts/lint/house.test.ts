import { RuleTester } from 'eslint';
import path from 'node:path';
import { describe, it } from 'vitest';
import { house } from './house.mjs';

RuleTester.describe = describe;
RuleTester.it = it;

const root = path.resolve(import.meta.dirname, '../..');
const from = (file: string, code: string) => ({ filename: path.join(root, file), code });
const wrong = (file: string, code: string) => ({ ...from(file, code), errors: 1 });
const tester = new RuleTester({ languageOptions: { ecmaVersion: 2022, sourceType: 'module' } });

tester.run('the direction of imports', house.rules.direction as never, {
  valid: [
    from('core/simulation/world/world.ts', `import { x } from '../geometry/index.ts'`),
    from('core/simulation/run/step.ts', `import { x } from '../scene/scene.ts'`),
    from('web/src/a.ts', `import { x } from '@jinx/core/document'`),
    from('server/a.ts', `import { x } from '@jinx/demo'`),
    from('core/document/a.ts', `import { x } from '../maths/index.ts'`),
    from('core/document/a.ts', `import { x } from '../simulation/forces/index.ts'`),
    from('core/simulation/forces/curl/curl.ts', `import { x } from '../../../maths/index.ts'`),
    from('core/simulation/run/1-ride.ts', `import { x } from '../compile/plan.ts'`),
    from('core/maths/maths.test.ts', `import { x } from '../kernels/index.ts'`),
    from('stage/a.ts', `import * as THREE from 'three'`),
  ],
  invalid: [
    wrong('core/maths/a.ts', `import { x } from '../document/index.ts'`),
    wrong('core/maths/a.ts', `import { x } from '../simulation/index.ts'`),
    wrong('core/simulation/a.ts', `import { x } from '../geometry/skin.ts'`),
    wrong('core/document/a.ts', `import { x } from '../simulation/index.ts'`),
    wrong('core/simulation/forces/curl/curl.ts', `import { x } from '../../../document/index.ts'`),
    wrong('core/simulation/compile/layer.ts', `import { x } from '../run/population.ts'`),
    wrong('core/simulation/run/1-ride.ts', `import { x } from '../compile/layer.ts'`),
    wrong('core/checks/a.ts', `import { x } from '../../web/src/a.ts'`),
    wrong('stage/a.ts', `import { x } from '@jinx/web'`),
    wrong('web/src/a.ts', `import { x } from '@jinx/server'`),
    wrong('server/a.ts', `export * from '@jinx/stage'`),
  ],
});

tester.run('packages that a workspace does not declare', house.rules.declared as never, {
  valid: [
    from('stage/a.ts', `import * as THREE from 'three'`),
    from('server/a.ts', `import { readFile } from 'node:fs/promises'; import { z } from 'zod'`),
    from('web/src/a.ts', `import { x } from '@jinx/core/document'; import('./b.ts')`),
    from('core/maths/a.test.ts', `import { test } from 'vitest'`),
    from('scripts/a.mjs', `import three from 'three'`),
  ],
  invalid: [
    wrong('core/maths/a.ts', `import * as THREE from 'three'`),
    wrong('stage/a.ts', `import { test } from 'vitest'`),
    wrong('server/a.ts', `const three = await import('three')`),
    wrong('web/src/a.test.ts', `import pg from 'pg'`),
    wrong('demo/a.ts', `export * from '@jinx/web/engine'`),
  ],
});

tester.run('maths whose bits differ between engines', house.rules['same-bits'] as never, {
  valid: [`Math.sqrt(2) + Math.fround(1) + Math.imul(2, 3) + Math.floor(1.5)`, `sin(1)`],
  invalid: ['Math.sin(1)', 'Math.pow(2, 3)', 'Math.hypot(1, 2)', 'Math.random()', '2 ** 3'].map((code) => ({
    code,
    errors: 1,
  })),
});

tester.run('addresses that are cut out of a text', house.rules.addresses as never, {
  valid: [
    from('core/document/parts/address.ts', `text.split('/')`),
    from('core/simulation/a.ts', 'const name = `force/${id}/share`'),
    from('web/src/a.ts', `unit.startsWith('/'); type.startsWith('video')`),
    from('server/a.ts', `head.split(':')`),
    from('core/document/a.test.ts', `text.split('/')`),
  ],
  invalid: [
    wrong('core/editing/a.ts', `const [kind, id] = of.split('/')`),
    wrong('core/checks/a.ts', `of.startsWith('front/')`),
    wrong('web/src/a.ts', `chosen.split(':')`),
    wrong('stage/a.ts', `name.indexOf('part/')`),
  ],
});
