import '@fontsource-variable/sofia-sans-semi-condensed';
import { mount } from 'svelte';
import App from './App.svelte';
import './app.css';

const target = document.getElementById('app');
if (!target) throw new Error('no place to show the interface');
export default mount(App, { target });
