/** Who may look at or say something about a reference. */
package marvek.server.sharing;
