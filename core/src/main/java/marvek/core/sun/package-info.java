/** Where the sun stands over a place at an hour, and where shadows fall. */
package marvek.core.sun;
