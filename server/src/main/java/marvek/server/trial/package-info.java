/** Two ways of doing a corner, marked lap by lap and compared. */
package marvek.server.trial;
