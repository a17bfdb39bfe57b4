const { resolve } = require('node:path');
module.exports = { resolve: { alias: { $lib: resolve(__dirname, 'web/src/lib') } } };
