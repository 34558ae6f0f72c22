package marvek.server.keeping;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import marvek.server.account.Departures;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Deleting an account with all its things. References of others that were copied from its own stay
 * readable, and so do remarks on them: by "somebody who left".
 */
@Service
public class Leaving {
  private static final Logger LOG = LoggerFactory.getLogger(Leaving.class);

  private final JdbcClient sql;
  private final Basket basket;
  private final Departures departures;
  private final KeepingSettings settings;
  private final TransactionTemplate transaction;
  private final Clock clock;

  Leaving(
      JdbcClient sql,
      Basket basket,
      Departures departures,
      KeepingSettings settings,
      TransactionTemplate transaction,
      Clock clock) {
    this.sql = sql;
    this.basket = basket;
    this.departures = departures;
    this.settings = settings;
    this.transaction = transaction;
    this.clock = clock;
  }

  /** Has an account deleted after a day; answers when. */
  Instant ask(UUID account, String password) {
    Instant at = clock.instant().plus(settings.farewell());
    departures.ask(account, password, at);
    return at;
  }

  /** Keeps an account after all. */
  void stay(UUID account) {
    departures.stay(account);
  }

  /** Deletes the accounts that are due. */
  @Scheduled(fixedDelay = 600_000, initialDelay = 30_000)
  void due() {
    until(clock.instant());
  }

  /** Deletes the accounts that are due at a time. */
  public void until(Instant now) {
    List<UUID> due =
        sql.sql("select id from account where leaves_at <= :now")
            .param("now", Basket.utc(now))
            .query(UUID.class)
            .list();
    for (UUID account : due) {
      departures.out(account);
      transaction.executeWithoutResult(t -> delete(account));
      LOG.info("an account was deleted as its owner had asked");
    }
  }

  private void delete(UUID account) {
    basket.everything(account);
    for (String statement :
        List.of(
            "delete from mapping_memory where owner_id = :a",
            "delete from event where owner_id = :a",
            "delete from recomputation where owner_id = :a",
            "delete from one_time_link where owner_id = :a",
            "delete from share where person_id = :a or owner_id = :a",
            "delete from known_place where owner_id = :a",
            "delete from sign_in_failure where email = (select email from account where id = :a)")) {
      sql.sql(statement).param("a", account).update();
    }
    // A remark on somebody else's reference is part of that; it stays, without a name.
    int kept =
        sql.sql(
                """
                update account set email = 'left-' || id, name = 'somebody who left', password = '',
                  leaves_at = null
                where id = :a and exists (select 1 from remark where author_id = :a)
                """)
            .param("a", account)
            .update();
    if (kept == 0) {
      sql.sql("delete from account where id = :a").param("a", account).update();
    }
  }
}
