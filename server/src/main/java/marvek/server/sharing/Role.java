package marvek.server.sharing;

/** What somebody may do with a reference. */
public enum Role {
  /** It is theirs: everything. */
  OWNER,
  /** May read it, and pin remarks and proposals to it. */
  COACH,
  /** May read it. */
  VIEWER
}
