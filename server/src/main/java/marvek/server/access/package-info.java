/** Who asks: the person signed in, which paths are open, and what a page may load. */
package marvek.server.access;
