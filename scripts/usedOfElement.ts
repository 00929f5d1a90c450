/**
 * Leaves out what no control here ever looks like: the colours, sizes and layouts of Element Plus that web/controls
 * doesn't offer are two thirds of its looks.
 */
import type { Plugin } from 'postcss';

const LEFT_OUT = [
  // Colours of meaning: ours are said by the words beside them.
  /\.el-(button|tag|checkbox|radio|input-tag|select|progress)[\w-]*--(success|info|warning|danger)/,
  /\.el-progress\.is-(success|warning|exception)/,
  // Sizes: each control has one.
  /\.el-[\w-]+--(large|small)/,
  // Shapes of buttons, boxes and tabs.
  /\.el-button\.is-(plain|text|link|round|circle|has-bg|active)|\.el-button--text|\.el-button__text--expand/,
  /\.el-(checkbox|radio)\.is-bordered|\.is-bordered/,
  /\.el-tabs--(right|bottom|card|border-card)|\.el-tabs__(new-tab|nav-(next|prev)|item \.is-icon-close)/,
  /\.el-tabs__[\w.-]*\.is-(right|bottom)|\.is-icon-close|slideInRight|slideInLeft|slideOut/,
  /\.el-(button-group|input-group|input-number|select-group|checkbox-button|descriptions)/,
  /\.el-input__(count|password)|\.el-textarea__clear/,
  /\.el-slider(\.is-vertical|__marks|__stop|__input)|\.el-slider--with-input/,
  /\.el-splitter-bar__(vertical|horizontal)-collapse|\.el-splitter-bar__collapse|-vertical\b/,
  /\.el-dialog\.is-(fullscreen|draggable)|\.el-dialog--center/,
  /\.el-progress--(dashboard|text-inside)|\.el-progress-bar__innerText|--striped/,
  /\.el-dropdown__caret|\.el-dropdown-selfdefine|\.el-dropdown \.el-button-group/,
];

export const isUsed = (selector: string): boolean => !LEFT_OUT.some((unused) => unused.test(selector));

export function usedOfElement(): Plugin {
  return {
    postcssPlugin: 'used-of-element',
    Rule(rule) {
      if (!rule.source?.input.file?.includes('element-plus')) return;
      const used = rule.selectors.filter(isUsed);
      if (used.length === 0) rule.remove();
      else if (used.length < rule.selectors.length) rule.selectors = used;
    },
  };
}
