import { theme } from 'ant-design-vue';

/** The application's look for Ant Design Vue: neutral greys, one accent, thin rules. */
export const THEME = {
  algorithm: theme.darkAlgorithm,
  token: {
    colorPrimary: '#dfe875',
    colorError: '#f08a5d',
    colorInfo: '#dfe875',
    colorBgBase: '#131314',
    colorBgElevated: '#212123',
    colorBgContainer: '#1a1a1c',
    colorTextBase: '#ececec',
    colorTextPlaceholder: '#95959a',
    colorBorder: '#3a3a3d',
    colorTextLightSolid: '#131314',
    borderRadius: 4,
    fontFamily: "'Source Sans 3 Variable', 'Segoe UI', sans-serif",
    fontSize: 14,
    motionDurationMid: '0.1s',
    motionDurationSlow: '0.12s',
  },
  // The accent carries dark text; a tooltip is dark and carries light text.
  components: { Tooltip: { colorTextLightSolid: '#ececec', colorBgSpotlight: '#303034' } },
};
