/** Knowing a reference by heart: what is asked for a session, and what was answered and driven. */
package marvek.server.rehearse;
