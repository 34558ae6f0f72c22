/** What is next for whoever signed in. */
package marvek.server.paddock;
