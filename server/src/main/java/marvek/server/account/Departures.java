package marvek.server.account;

import java.time.Instant;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Accounts whose owners want to leave. */
@Service
public class Departures {
  private final Accounts accounts;
  private final SignUp signUp;
  private final Everywhere everywhere;

  Departures(Accounts accounts, SignUp signUp, Everywhere everywhere) {
    this.accounts = accounts;
    this.signUp = signUp;
    this.everywhere = everywhere;
  }

  /** Notes when an account is to be deleted; needs its password. */
  public void ask(UUID id, String password, Instant at) {
    Account account = accounts.findById(id).orElseThrow();
    signUp.check(account, password);
    account.leave(at);
    accounts.save(account);
  }

  /** Keeps an account after all. */
  @Transactional
  public void stay(UUID id) {
    accounts.findById(id).orElseThrow().leave(null);
  }

  /** Ends all sessions of an account. */
  public void out(UUID id) {
    everywhere.out(id, null);
  }
}
