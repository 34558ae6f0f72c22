package marvek.server.keeping;

import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** One after the other, across all server processes. */
@Component
public class Turns {
  private final JdbcClient sql;

  Turns(JdbcClient sql) {
    this.sql = sql;
  }

  /** Waits until nobody else is at the same thing; the turn ends with the transaction. */
  @Transactional(propagation = Propagation.MANDATORY)
  public void at(String thing) {
    sql.sql("select pg_advisory_xact_lock(hashtextextended(:t, 0))::text")
        .param("t", thing)
        .query(String.class)
        .list();
  }
}
