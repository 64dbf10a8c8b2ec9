import type { ThemeConfig } from 'antd';

/** Undyed-cloth greys for surfaces, one indigo for action; madder and weld only for warnings. */
export const ink = '#23272E';
export const indigo = '#2A3B6B';
export const madder = '#A1362B';
export const moss = '#47663A';

export const theme: ThemeConfig = {
  token: {
    colorPrimary: indigo,
    colorInfo: indigo,
    colorLink: indigo,
    colorError: madder,
    colorWarning: '#7A5A00',
    colorSuccess: moss,
    colorText: ink,
    colorTextSecondary: '#5A5D63',
    colorTextPlaceholder: '#6E7075',
    colorIcon: '#5A5D63',
    colorBorder: '#8F897C',
    colorBorderSecondary: '#CFCAC0',
    colorBgLayout: '#F6F4EF',
    colorBgContainer: '#FFFFFF',
    borderRadius: 5,
    fontFamily: "'Source Sans 3 Variable', 'Source Sans 3', sans-serif",
    fontSize: 15,
    controlHeight: 36,
    motion: false,
    controlInteractiveSize: 18,
  },
  components: {
    Tabs: {
      horizontalItemGutter: 16,
      horizontalItemPadding: '5px 2px',
      horizontalMargin: '0 0 10px',
      titleFontSize: 15,
      itemColor: indigo,
      itemSelectedColor: ink,
    },
    Table: {
      headerBg: 'transparent',
      headerColor: '#5A5D63',
      headerSortHoverBg: '#E9E6DF',
      headerSortActiveBg: '#E9E6DF',
      bodySortBg: 'transparent',
      colorBgContainer: 'transparent',
      headerSplitColor: 'transparent',
      borderColor: '#CFCAC0',
    },
    Select: { optionSelectedBg: '#E1E5F0' },
  },
};
