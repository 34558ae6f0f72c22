/** People: addresses, passwords, signing in and up, links that work once. */
package marvek.server.account;
