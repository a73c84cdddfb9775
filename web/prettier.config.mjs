export default { printWidth: 100, semi: false, singleQuote: true, trailingComma: 'all' }
