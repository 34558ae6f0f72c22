/**
 * What keeps one client from stopping the others before anything of the application is reached:
 * deadlines for heads and bodies, connections and bodies at once by address. Start at {@code
 * GuardConfig}.
 */
package marvek.server.guard;
