/** The invented scenario, loaded once where the demo is on. */
package marvek.server.demo;
