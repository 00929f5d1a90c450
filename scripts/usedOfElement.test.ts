/** What of Element Plus's looks goes into the page: all that our controls show, and little else. */
import { readdirSync, readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { isUsed } from './usedOfElement';

test('what our controls look like stays, what they never look like goes', () => {
  const stays = [
    '.el-button',
    '.el-button--primary',
    '.el-button.is-disabled:hover',
    '.el-button.is-loading',
    '.el-slider__button-wrapper',
    '.el-tabs__item.is-active',
    '.el-tabs__nav-wrap.is-top',
    '.el-radio-button.is-active .el-radio-button__inner',
    '.el-notification--error',
    '.el-select-dropdown__item.is-hovering',
    '.el-splitter-bar__dragger-horizontal',
    '.el-progress--circle',
  ];
  const goes = [
    '.el-button--success',
    '.el-button--large',
    '.el-tabs--border-card>.el-tabs__header',
    '.el-input-group__append',
    '.el-slider.is-vertical',
    '.el-tag--danger',
  ];
  expect(stays.filter((selector) => !isUsed(selector))).toEqual([]);
  expect(goes.filter(isUsed)).toEqual([]);
});

test('no control asks for a look that is left out', () => {
  const web = resolve(import.meta.dirname, '../web');
  const asked = readdirSync(web, { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith('.vue'))
    .flatMap((file) => [...readFileSync(join(web, file), 'utf8').matchAll(/<El\w+[^>]*>/g)].map(([tag]) => tag));
  expect(asked.length).toBeGreaterThan(15);
  for (const tag of asked) {
    expect(tag).not.toMatch(/\s(plain|round|circle|text|link|border|vertical|show-password|show-word-limit)[\s=>]/);
    expect(tag).not.toMatch(/size="(small|large)"|type="(success|info|warning|danger|card|border-card)"/);
  }
});
