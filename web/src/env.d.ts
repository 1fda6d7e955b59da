/// <reference types="vite/client" />
declare module '*.css';
declare module '@fontsource-variable/source-sans-3';
