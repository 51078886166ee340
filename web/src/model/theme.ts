import type { ThemeConfig } from 'antd'
import { theme } from 'antd'

/** Ant Design's tokens in this product's palette; both sets pass AA for text. */
export function themeOf(dark: boolean): ThemeConfig {
  return {
    algorithm: dark ? theme.darkAlgorithm : theme.defaultAlgorithm,
    token: {
      fontFamily: "'IBM Plex Sans', system-ui, sans-serif",
      fontSize: 13,
      borderRadius: 5,
      // Who asked the system for less motion gets none of it.
      motion: !window.matchMedia('(prefers-reduced-motion: reduce)').matches,
      controlHeight: 30,
      controlHeightSM: 24,
      colorPrimary: dark ? '#4fb0b5' : '#17666d',
      colorInfoBg: dark ? '#16302f' : '#e6efec',
      colorInfoBorder: dark ? '#2d5553' : '#b9d1cc',
      colorWarningBg: dark ? '#33290f' : '#f8edd2',
      colorInfo: dark ? '#4fb0b5' : '#17666d',
      colorLink: dark ? '#6cc5c9' : '#17666d',
      colorError: dark ? '#f0877a' : '#a3271c',
      colorText: dark ? '#e9e6dd' : '#22302f',
      colorTextPlaceholder: dark ? '#a7aca6' : '#5f6966',
      colorTextDescription: dark ? '#b3b8b1' : '#56605d',
      colorTextDisabled: dark ? '#8b938e' : '#6d7572',
      colorBgBase: dark ? '#14201f' : '#fdfcf8',
      colorBgContainer: dark ? '#1b2928' : '#fffefb',
      colorBgElevated: dark ? '#1f2f2d' : '#fffefb',
      colorBorder: dark ? '#4b5c59' : '#b9b7a8',
    },
    components: {
      Segmented: { itemColor: dark ? '#c9cec7' : '#3f4a48' },
      Button: { primaryColor: dark ? '#0d1817' : '#ffffff' },
    },
  }
}
