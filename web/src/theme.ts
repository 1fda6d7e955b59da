import { theme } from 'ant-design-vue';

/** The application's look for Ant Design Vue: neutral greys, one accent, thin rules, small and dense. */
export const THEME = {
  algorithm: theme.darkAlgorithm,
  // There is one theme: its styles need no name of their own, which takes long to work out.
  hashed: false,
  token: {
    colorPrimary: '#dfe875',
    colorError: '#f08a5d',
    colorWarning: '#f0956b',
    colorSuccess: '#dfe875',
    colorInfo: '#dfe875',
    colorLink: '#dfe875',
    colorLinkHover: '#f0f79a',
    colorLinkActive: '#f0f79a',
    colorBgBase: '#131314',
    colorBgElevated: '#1d1d1f',
    colorBgContainer: '#1a1a1c',
    colorTextBase: '#ececec',
    colorTextPlaceholder: '#95959a',
    colorTextDisabled: '#77777b',
    colorBorder: '#3a3a3d',
    colorBorderSecondary: '#2c2c2f',
    colorTextLightSolid: '#131314',
    borderRadius: 4,
    borderRadiusSM: 3,
    fontFamily: "'Source Sans 3 Variable', system-ui, sans-serif",
    fontSize: 14,
    fontSizeSM: 12.5,
    controlHeight: 28,
    controlHeightSM: 22,
    motionDurationMid: '0.1s',
    motionDurationSlow: '0.12s',
    wireframe: false,
  },
  // The accent carries dark text; a tooltip is dark and carries light text.
  components: { Tooltip: { colorTextLightSolid: '#ececec', colorBgSpotlight: '#303034' } },
};
