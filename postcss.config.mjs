export default {
  plugins: { 'postcss-preset-mantine': {}, 'postcss-simple-vars': {} },
};
