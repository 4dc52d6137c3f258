import js from '@eslint/js';
import angular from 'angular-eslint';
import jsdoc from 'eslint-plugin-jsdoc';
import tseslint from 'typescript-eslint';

export default tseslint.config(
  { ignores: ['dist/', 'node_modules/', '.angular/', 'data/', 'docs/', 'kernels/', 'src/**/*.d.ts'] },
  {
    files: ['**/*.ts', '**/*.tsx'],
    extends: [js.configs.recommended, ...tseslint.configs.strictTypeChecked, ...tseslint.configs.stylisticTypeChecked],
    languageOptions: {
      parserOptions: {
        project: ['tsconfig.node.json', 'tsconfig.web-test.json', 'tsconfig.web-worker.json', 'tsconfig.reader.json'],
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: {
      // Numbers and ids in messages are what templates are for.
      '@typescript-eslint/restrict-template-expressions': [
        'error',
        { allowNumber: true, allowBoolean: true, allowNullish: true },
      ],
      // `() => signal.set(x)` in templates and callbacks reads better without braces.
      '@typescript-eslint/no-confusing-void-expression': 'off',
      // Services and components are classes, though some hold nothing but a constructor.
      '@typescript-eslint/no-extraneous-class': 'off',
      // Typed arrays and maps are indexed by what was checked just before.
      '@typescript-eslint/no-non-null-assertion': 'error',
      '@typescript-eslint/consistent-type-imports': 'error',
      // Indexing is typed as always finding something, so these rules would call checks that are needed needless.
      '@typescript-eslint/no-unnecessary-condition': 'off',
      '@typescript-eslint/prefer-optional-chain': 'off',
      // `as T` says what is known; `!` is forbidden above.
      '@typescript-eslint/non-nullable-type-assertion-style': 'off',
      '@typescript-eslint/dot-notation': 'off',
      '@typescript-eslint/no-unnecessary-type-parameters': 'off',
      '@typescript-eslint/prefer-for-of': 'off',
      // There are no enums, so what can be wrong with one need not be looked for at every assignment.
      'no-restricted-syntax': ['error', { selector: 'TSEnumDeclaration', message: 'Use a union of literals.' }],
      '@typescript-eslint/no-unsafe-enum-assignment': 'off',
      '@typescript-eslint/no-unsafe-enum-comparison': 'off',
      'no-console': 'error',
      eqeqeq: 'error',
    },
  },
  {
    files: ['src/core/**/*.ts'],
    ignores: ['**/*.test.ts', 'src/core/testing/**'],
    plugins: { jsdoc },
    rules: {
      'jsdoc/require-jsdoc': [
        'error',
        {
          publicOnly: true,
          require: { FunctionDeclaration: true, ClassDeclaration: true, ArrowFunctionExpression: true },
          contexts: ['TSInterfaceDeclaration'],
        },
      ],
      'jsdoc/check-param-names': 'error',
      'jsdoc/check-tag-names': 'error',
      'jsdoc/no-types': 'error',
    },
  },
  {
    files: ['src/web/app/**/*.ts'],
    extends: [...angular.configs.tsRecommended],
    rules: {
      '@angular-eslint/directive-selector': ['error', { type: 'attribute', prefix: 'sd', style: 'camelCase' }],
      '@angular-eslint/component-selector': ['error', { type: 'element', prefix: 'sd', style: 'kebab-case' }],
      '@angular-eslint/prefer-on-push-component-change-detection': 'error',
      'no-restricted-imports': [
        'error',
        { paths: [{ name: 'primeng/dialog', message: 'Import DIALOG from ui/dialog, which hands the keys over.' }] },
      ],
    },
    processor: angular.processInlineTemplates,
  },
  {
    files: ['src/web/app/ui/dialog/dialog.ts'],
    rules: {
      'no-restricted-imports': 'off',
      '@angular-eslint/directive-selector': 'off',
    },
  },
  {
    files: ['src/web/app/**/*.html'],
    extends: [...angular.configs.templateRecommended, ...angular.configs.templateAccessibility],
    // Lists hear the keys of the focusable rows inside them; rows and list entries have their own keys.
    rules: {
      '@angular-eslint/template/interactive-supports-focus': 'off',
      '@angular-eslint/template/click-events-have-key-events': 'off',
    },
  },
  {
    files: ['src/server/main.ts', 'src/server/wiring.ts', 'src/web/main.ts', 'bench/**/*.ts', '**/testing/*.ts'],
    rules: { 'no-console': 'off' },
  },
  {
    files: ['**/*.test.ts'],
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      '@typescript-eslint/no-floating-promises': 'error',
    },
  },
);
