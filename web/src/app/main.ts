import '@fontsource-variable/sofia-sans-semi-condensed';
import { mount } from 'svelte';
import App from './App.svelte';
import './app.css';
import { tell } from '../words/tell';

const target = document.getElementById('app');
if (!target) throw new Error(tell('main.no_place_to_show_the'));
export default mount(App, { target });
