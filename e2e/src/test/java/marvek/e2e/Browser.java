package marvek.e2e;

import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import org.openqa.selenium.By;
import org.openqa.selenium.Dimension;
import org.openqa.selenium.ElementNotInteractableException;
import org.openqa.selenium.JavascriptExecutor;
import org.openqa.selenium.Keys;
import org.openqa.selenium.NoSuchElementException;
import org.openqa.selenium.StaleElementReferenceException;
import org.openqa.selenium.WebElement;
import org.openqa.selenium.chrome.ChromeDriver;
import org.openqa.selenium.chrome.ChromeDriverService;
import org.openqa.selenium.chrome.ChromeOptions;
import org.openqa.selenium.interactions.Actions;
import org.openqa.selenium.interactions.PointerInput;
import org.openqa.selenium.interactions.Sequence;
import org.openqa.selenium.support.ui.WebDriverWait;

/** Headless Chromium on the running server, with waiting built in. */
final class Browser implements AutoCloseable {
  /** A busy machine takes its time; how long things take is measured elsewhere. */
  private static final Duration PATIENCE = Duration.ofSeconds(60);

  private static final Duration LOOKS = Duration.ofMillis(40);
  // How long a pointer takes from one place to the next.
  private static final Duration STROKE = Duration.ofMillis(60);

  private final ChromeDriver driver;
  private final String address;

  Browser() {
    this(server());
  }

  static String server() {
    String url = System.getenv("MARVEK_URL");
    if (url == null) {
      throw new IllegalStateException("MARVEK_URL is not set; ./marvek test sets it");
    }
    return url;
  }

  Browser(String url) {
    this(url, "en-GB");
  }

  /** One whose user asks for a language. */
  Browser(String url, String language) {
    address = url;
    ChromeOptions options = new ChromeOptions();
    options.setExperimentalOption("prefs", java.util.Map.of("intl.accept_languages", language));
    options.setBinary("/usr/bin/chromium");
    options.addArguments(
        "--headless=new",
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
        "--lang=en-GB",
        "--hide-scrollbars",
        "--window-size=1280,800");
    ChromeDriverService service =
        new ChromeDriverService.Builder()
            .usingDriverExecutable(new java.io.File("/usr/bin/chromedriver"))
            .build();
    driver = new ChromeDriver(service, options);
    resize(1280, 800);
  }

  /** Sets the size of the page itself. */
  void resize(int width, int height) {
    driver.manage().window().setSize(new Dimension(width, height));
    long inner = (Long) run("return window.innerHeight");
    driver.manage().window().setSize(new Dimension(width, height + (int) (height - inner)));
  }

  void open(String hash) {
    driver.get(address + "/#" + hash);
  }

  void reload() {
    driver.navigate().refresh();
  }

  void signInAsDemoDriver() {
    driver.manage().deleteAllCookies();
    driver.get(address + "/");
    click("//button[.='Demo driver']");
    find("//nav");
  }

  /** Makes an account, is signed in with it, and returns its address. */
  String signUp(String name) {
    String email = java.util.UUID.randomUUID() + "@example.org";
    open("/");
    if (!all("button[aria-label^='Sign out']").isEmpty()) {
      click("button[aria-label^='Sign out']");
    }
    click("//button[.='I am new here']");
    fill("input[autocomplete=name]", name);
    fill("input[type=email]", email);
    fill("input[type=password]", "a long enough word");
    click("//button[.='Make the account']");
    find("//h1[.='Bring a circuit']");
    return email;
  }

  /**
   * A newcomer's draft of the sample circuit in a cup GT, open at its desk.
   *
   * @return id of the reference
   */
  String newcomersDraft() {
    signUp("Nova Piloto");
    open("/survey/bring");
    give("[data-outline]", Path.of("../server/src/main/resources/samples/outline.geojson"));
    find("[data-found='7']");
    click("//button[.='Save as a layout']");
    choose("select[name=vehicle]", "Cup GT");
    click("//button[.='Draft the reference']");
    textWhen("[data-margin]", t -> t.contains("m ·"));
    return here().replaceFirst(".*/reference/", "");
  }

  /** Waits that look again and again, not twice a second as is usual. */
  private WebDriverWait soon() {
    return new WebDriverWait(driver, PATIENCE, LOOKS);
  }

  /** The element, when it is there and shown. XPath, or CSS where it starts with no slash. */
  WebElement find(String where) {
    return soon()
        .ignoring(StaleElementReferenceException.class)
        .withMessage("no " + where)
        .until(
            d ->
                d.findElements(by(where)).stream()
                    .filter(WebElement::isDisplayed)
                    .findFirst()
                    .orElse(null));
  }

  List<WebElement> all(String where) {
    return driver.findElements(by(where));
  }

  private static By by(String where) {
    return where.startsWith("/") || where.startsWith("(") ? By.xpath(where) : By.cssSelector(where);
  }

  void click(String where) {
    soon()
        .ignoring(org.openqa.selenium.ElementNotInteractableException.class)
        .ignoring(StaleElementReferenceException.class)
        .withMessage("cannot click " + where)
        .until(
            d -> {
              WebElement found = find(where);
              // A press on what is not ready yet goes nowhere.
              if (!found.isEnabled()) {
                return false;
              }
              found.click();
              return true;
            });
  }

  void fill(String where, String text) {
    soon()
        .ignoring(StaleElementReferenceException.class)
        // What is still opening is shown and cannot be written into yet.
        .ignoring(ElementNotInteractableException.class)
        .until(
            d -> {
              find(where).sendKeys(Keys.chord(Keys.CONTROL, "a"), text);
              return true;
            });
  }

  void choose(String where, String value) {
    soon()
        .ignoring(StaleElementReferenceException.class)
        // What there is to choose from may still be on its way.
        .ignoring(NoSuchElementException.class)
        .withMessage("no " + value + " in " + where)
        .until(
            d -> {
              new org.openqa.selenium.support.ui.Select(find(where)).selectByVisibleText(value);
              return true;
            });
  }

  void press(CharSequence... keys) {
    new Actions(driver, STROKE).sendKeys(keys).perform();
  }

  /** Presses a key while another is held. */
  void pressWith(Keys held, CharSequence key) {
    new Actions(driver, STROKE).keyDown(held).sendKeys(key).keyUp(held).perform();
  }

  /** Gives a file to a hidden file field. */
  void give(String where, Path file) {
    String path = file.toAbsolutePath().normalize().toString();
    soon()
        .ignoring(StaleElementReferenceException.class)
        .withMessage("no " + where)
        .until(d -> d.findElements(by(where)).stream().findFirst().orElse(null))
        .sendKeys(path);
  }

  void drag(String where, int by) {
    WebElement element = find(where);
    new Actions(driver, STROKE)
        .moveToElement(element)
        .clickAndHold()
        .moveByOffset(by / 2, 0)
        .moveByOffset(by - by / 2, 0)
        .release()
        .perform();
  }

  /** Clicks inside an element, at pixels from its upper left corner. */
  void clickIn(String where, int x, int y) {
    dragIn(where, x, y, x);
  }

  /** Taps the middle of an element with a finger. */
  void tap(String where) {
    swipe(where, 0, 0, 0);
  }

  /**
   * Puts a finger down on an element, off its middle, and draws it along.
   *
   * @param x pixels right of its middle
   * @param y pixels below its middle
   * @param by pixels to the right
   */
  void swipe(String where, int x, int y, int by) {
    PointerInput finger = new PointerInput(PointerInput.Kind.TOUCH, "finger");
    WebElement element = find(where);
    run("arguments[0].scrollIntoView({inline: 'center', block: 'center'})", element);
    PointerInput.Origin on = PointerInput.Origin.fromElement(element);
    Sequence press = new Sequence(finger, 0);
    press.addAction(finger.createPointerMove(Duration.ZERO, on, x, y));
    press.addAction(finger.createPointerDown(PointerInput.MouseButton.LEFT.asArg()));
    for (int step = 1; by != 0 && step <= 4; step++) {
      press.addAction(finger.createPointerMove(Duration.ofMillis(60), on, x + by * step / 4, y));
    }
    press.addAction(finger.createPointerUp(PointerInput.MouseButton.LEFT.asArg()));
    driver.perform(List.of(press));
  }

  /** Presses inside an element at one place and lets go at another of the same height. */
  void dragIn(String where, int x, int y, int to) {
    WebElement element = find(where);
    int left = element.getSize().getWidth() / 2;
    int top = element.getSize().getHeight() / 2;
    Actions actions =
        new Actions(driver, STROKE).moveToElement(element, x - left, y - top).clickAndHold();
    if (to != x) {
      actions.moveByOffset((to - x) / 2, 0).moveByOffset(to - x - (to - x) / 2, 0);
    }
    actions.release().perform();
  }

  /** Sets a field that a pointer would be slow at, like a slider, and says so to the page. */
  void set(String where, String value) {
    run(
        "arguments[0].value = arguments[1];"
            + "arguments[0].dispatchEvent(new Event('input', {bubbles: true}));"
            + "arguments[0].dispatchEvent(new Event('change', {bubbles: true}));",
        find(where),
        value);
  }

  /** The text of an element, once it satisfies the check. */
  String textWhen(String where, java.util.function.Predicate<String> check) {
    return soon()
        .ignoring(StaleElementReferenceException.class)
        .withMessage(() -> "text of " + where + " stayed: " + shown(where))
        .until(
            d -> {
              String text = shown(where);
              return text != null && check.test(text) ? text : null;
            });
  }

  private String shown(String where) {
    return driver.findElements(by(where)).stream()
        .findFirst()
        .map(WebElement::getText)
        .orElse(null);
  }

  String attributeWhen(String where, String name, java.util.function.Predicate<String> check) {
    return soon()
        .ignoring(StaleElementReferenceException.class)
        .withMessage("attribute " + name + " of " + where)
        .until(
            d -> {
              String value = find(where).getDomAttribute(name);
              return value != null && check.test(value) ? value : null;
            });
  }

  void waitFor(java.util.function.BooleanSupplier condition, String what) {
    soon().withMessage(what).until(d -> condition.getAsBoolean());
  }

  Object run(String script, Object... arguments) {
    return ((JavascriptExecutor) driver).executeScript(script, arguments);
  }

  /** Runs a script that calls its last argument when it is done. */
  Object runLater(String script, Object... arguments) {
    driver.manage().timeouts().scriptTimeout(Duration.ofMinutes(3));
    return driver.executeAsyncScript(script, arguments);
  }

  String here() {
    return String.valueOf(driver.getCurrentUrl());
  }

  /** Opens another window on the same session and goes there. */
  String newWindow() {
    String before = driver.getWindowHandle();
    driver.switchTo().newWindow(org.openqa.selenium.WindowType.TAB);
    return before;
  }

  void goTo(String window) {
    driver.switchTo().window(window);
  }

  String window() {
    return driver.getWindowHandle();
  }

  byte[] picture() {
    return driver.getScreenshotAs(org.openqa.selenium.OutputType.BYTES);
  }

  /** The page as it would be printed on A4. */
  byte[] print() {
    var options = new org.openqa.selenium.print.PrintOptions();
    options.setPageSize(new org.openqa.selenium.print.PageSize(29.7, 21.0));
    return java.util.Base64.getDecoder().decode(driver.print(options).getContent());
  }

  @Override
  public void close() {
    driver.quit();
  }
}
