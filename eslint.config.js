import vue from 'eslint-plugin-vue';
import accessibility from 'eslint-plugin-vuejs-accessibility';
import ts from 'typescript-eslint';

const extraFileExtensions = ['.vue'];

/** Directions of imports: web → core, server → core, core → nothing of ours; rooms of core only by their index. */
/** `out` is what leads out of a room: one step up, two from a folder inside it. */
const coreImports = (out) => ({
  patterns: [
    { group: [out], message: 'A room of core reaches another by its index alone: #core/<room>.' },
    { group: ['#core/*/*'], message: 'Rooms are entered by their index.' },
    {
      group: ['three', 'three/*', 'vue', 'koa', 'echarts', 'sharp', '@electric-sql/*', 'node:*', 'comlink', 'pinia'],
      message: 'Core has no interface, no server and no machine in it.',
    },
  ],
});
const indexOnly = { group: ['#core/*/*', '**/core/**'], message: 'Core is entered by its rooms: #core/<room>.' };

/** Rooms of the page from the lowest: each knows those before it, and none behind it. */
const WEB_ROOMS = [
  ['api'],
  ['workers', 'viewport'],
  ['stores'],
  ['keys'],
  ['controls'],
  ['slab', 'scan', 'sheet', 'made', 'cast', 'alpha', 'bench', 'proof'],
  ['rack', 'settings'],
  ['places'],
];
const controlsOnly = {
  group: ['element-plus', 'element-plus/**'],
  message: 'Element Plus is reached through web/controls, which knows units, keys and our roles.',
};
const pageOnly = { group: ['**/server/**', '**/demo/**', 'node:*'], message: 'The page reaches the server by HTTP.' };
const webRooms = WEB_ROOMS.flatMap((rooms, i) =>
  rooms.map((room) => {
    const beside = i === 1 ? rooms.filter((other) => other !== room) : [];
    const above = [...beside, ...WEB_ROOMS.slice(i + 1).flat()].map((other) => `../**/${other}/**`);
    const upwards = {
      group: above,
      message: `web/${room} doesn’t know this room: imports go one way (eslint.config.js).`,
    };
    const patterns = [
      indexOnly,
      pageOnly,
      ...(room === 'controls' ? [] : [controlsOnly]),
      ...(above.length > 0 ? [upwards] : []),
    ];
    return { files: [`web/${room}/**/*.{ts,vue}`], rules: { 'no-restricted-imports': ['error', { patterns }] } };
  }),
);

const noEnums = { selector: 'TSEnumDeclaration', message: 'Use a union of literals.' };
const passItIn = 'State of a module is hidden: pass it in, or keep it in a store.';
const noHiddenState = [
  { selector: "Program > VariableDeclaration[kind='let']", message: passItIn },
  { selector: "Program > ExportNamedDeclaration > VariableDeclaration[kind='let']", message: passItIn },
  {
    selector:
      'Program > VariableDeclaration > VariableDeclarator > NewExpression[callee.name=/^(Map|Set|WeakMap|WeakSet)$/][arguments.length=0]',
    message: passItIn,
  },
  {
    selector: 'Program > VariableDeclaration > VariableDeclarator > ArrayExpression[elements.length=0]',
    message: passItIn,
  },
];

export default ts.config(
  {
    ignores: [
      'dist/',
      'build/',
      'data/',
      'node_modules/',
      'test-results/',
      'playwright-report/',
      '*.config.js',
      'core/*/assembly/',
      '**/*.generated.ts',
    ],
  },
  ...ts.configs.recommended,
  ...vue.configs['flat/essential'],
  ...accessibility.configs['flat/recommended'],
  {
    files: ['**/*.vue'],
    rules: {
      // Ours hold the field of Element Plus that they are named for.
      'vuejs-accessibility/label-has-for': [
        'error',
        {
          controlComponents: [
            'ChoiceBar',
            'ColourField',
            'NumberField',
            'SelectField',
            'TagsField',
            'TextField',
            'TypedChoice',
            'ElCheckbox',
            'ElInputNumber',
            'ElInput',
          ],
          required: { some: ['nesting', 'id'] },
        },
      ],
      // What a dialog asks for first is where one types.
      'vuejs-accessibility/no-autofocus': 'off',
      // Views, leaves and groups hear of what is done inside them; what is pressed there has a role of its own.
      'vuejs-accessibility/no-static-element-interactions': 'off',
    },
  },
  {
    files: ['**/*.vue'],
    languageOptions: { parserOptions: { parser: ts.parser, extraFileExtensions } },
  },
  {
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/no-non-null-assertion': 'off',
      'no-console': 'off',
      'prefer-const': 'error',
      eqeqeq: 'error',
      // Prettier lays the code out; what it can't break is a sentence, a query or a path.
      'max-len': [
        'error',
        { code: 120, ignoreStrings: true, ignoreTemplateLiterals: true, ignoreRegExpLiterals: true },
      ],
      'no-restricted-syntax': ['error', noEnums],
    },
  },
  {
    files: ['core/**/*.ts', 'server/**/*.ts', 'web/**/*.ts'],
    // A worker's module is the worker: it has one life, and its state with it.
    ignores: ['**/*.test.ts', '**/test*.ts', '**/*.worker.ts', 'web/workers/sculpt/*.ts', 'core/sculpt/assembly/*.ts'],
    rules: { 'no-restricted-syntax': ['error', noEnums, ...noHiddenState] },
  },
  { files: ['core/*/*.ts'], rules: { 'no-restricted-imports': ['error', coreImports('../*')] } },
  { files: ['core/*/*/*.ts'], rules: { 'no-restricted-imports': ['error', coreImports('../../*')] } },
  {
    files: ['web/**/*.{ts,vue}'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [indexOnly, pageOnly],
        },
      ],
    },
  },
  ...webRooms,
  {
    files: ['web/**/*.vue'],
    rules: {
      'vue/no-restricted-html-elements': [
        'error',
        ...['button', 'select', 'option', 'input', 'textarea', 'progress', 'dialog'].map((element) => ({
          element,
          message: 'Controls are those of Element Plus, by the wrappers in web/controls.',
        })),
      ],
      'vue/attributes-order': 'error',
    },
  },
  {
    files: ['server/**/*.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            indexOnly,
            { group: ['**/web/**', '**/demo/**'], message: 'The server knows neither page nor demo.' },
          ],
        },
      ],
    },
  },
  { files: ['scripts/**/*.mjs'], rules: { 'no-undef': 'off' } },
);
