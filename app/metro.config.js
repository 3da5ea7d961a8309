const http = require('node:http');
const { join } = require('node:path');
const { getDefaultConfig } = require('expo/metro-config');

const config = getDefaultConfig(__dirname);
config.resolver.assetExts.push('woff2');

// Paper's states reach the page through two small modules of ours, which stand in for those of React Native's web.
const OURS = { createDOMProps: 'create-dom-props.js', forwardedProps: 'forwarded-props.js' };
const web = join(__dirname, 'web');
config.resolver.resolveRequest = (context, name, platform) => {
  const [, module] = /(?:^|\/)modules\/(createDOMProps|forwardedProps)(?:\/index)?$/.exec(name) ?? [];
  if (module && !context.originModulePath.startsWith(web))
    return { type: 'sourceFile', filePath: join(web, OURS[module]) };
  return context.resolveRequest(context, name, platform);
};

// In development the page comes from Metro and the API from the server; this joins the two under one address.
const apiPort = Number(process.env.API_PORT || 4173);
config.server.enhanceMiddleware = (middleware) => (request, response, next) => {
  if (!request.url.startsWith('/api/')) return middleware(request, response, next);
  const { method, headers, url } = request;
  const onward = http.request({ host: '127.0.0.1', port: apiPort, path: url, method, headers }, (answer) => {
    response.writeHead(answer.statusCode, answer.headers);
    answer.pipe(response);
  });
  onward.on('error', () => response.writeHead(502).end());
  request.pipe(onward);
};

module.exports = config;
