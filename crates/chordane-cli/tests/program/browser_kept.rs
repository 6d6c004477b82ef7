//! Nothing typed or drawn in the page is lost: clashes, programs that are started again, held keys, and addresses that are not whole.

use crate::browser_live::{SAILS, SHEET, sails};
use crate::pages::{Live, Page, wait, wait_for_file};
use crate::support::loft;

const END: char = '\u{e010}';
const CONTROL: char = '\u{e009}';
const RIGHT: char = '\u{e014}';

/// Puts the cursor at the end of the first line, by keys.
fn to_first_line(page: &Page) {
    let corner = page.run(
        "const box = document.querySelector('.cm-line').getBoundingClientRect(); return [box.left, box.top]",
    );
    page.click_at((corner[0].as_f64().unwrap() + 20.0, corner[1].as_f64().unwrap() + 8.0));
    page.keys(&[CONTROL], &['\u{e011}']);
    page.keys(&[], &[END]);
}

fn type_in(page: &Page, text: &str) {
    page.keys(&[], &text.chars().collect::<Vec<_>>());
}

#[test]
#[ignore = "needs Chromium"]
fn a_clash_waits_for_its_answer_and_both_texts_stay_on_the_way_back() {
    let (_folder, score, live, page) = sails();
    let clash = |page: &Page| {
        to_first_line(page);
        page.cut();
        type_in(page, " mine");
        std::fs::write(&score, SAILS.replacen("on a line.", "on a rope.", 1)).unwrap();
        let other = Page::open(&live.address);
        other.wait("document.querySelector('.cm-content')?.textContent.includes('rope')");
        page.join();
        page.wait("document.querySelector('#clash')");
        assert!(page.text(".cm-content").contains("on a rope."));
    };
    clash(&page);
    page.keep("live-clash");
    // It waits, whatever is done meanwhile.
    page.click("#surround");
    page.click("#surround");
    page.click("#clash button");
    wait_for_file(&score, |text| text.starts_with("// Sails on a line. mine\n"));
    assert_eq!(page.run("return document.querySelector('#clash')"), serde_json::Value::Null);
    // One step back is the other text, then what was typed, then the other one again, and at last the first.
    let back = |begin: &str| {
        page.click("#undo");
        wait_for_file(&score, |text| text.starts_with(begin));
    };
    for begin in [
        "// Sails on a rope.\n",
        "// Sails on a line. mine\n",
        "// Sails on a rope.\n",
        "// Sails on a line.\n",
    ] {
        back(begin);
    }
    // And with the other answer.
    clash(&page);
    page.click("#clash button:last-child");
    page.wait("document.querySelector('#clash') === null");
    assert!(std::fs::read_to_string(&score).unwrap().starts_with("// Sails on a rope.\n"));
    page.click("#undo");
    wait_for_file(&score, |text| text.starts_with("// Sails on a line. mine\n"));
}

#[test]
#[ignore = "needs Chromium"]
fn what_is_typed_while_no_program_is_there_is_offered_by_the_next_one() {
    let (folder, score) = loft(SAILS);
    let port = std::net::TcpListener::bind("127.0.0.1:0").unwrap().local_addr().unwrap().port();
    let call = ["live", score.to_str().unwrap()];
    let live = Live::start_at(&call, port);
    let page = Page::open(&live.address);
    page.wait_for_picture();
    live.kill();
    page.wait("document.body.dataset.line === 'closed'");
    to_first_line(&page);
    type_in(&page, " typed");
    // Another line is changed meanwhile.
    std::fs::write(&score, SAILS.replace("a quarter turn", "a half turn")).unwrap();
    let next = Live::start_at(&call, port);
    page.wait("!document.querySelector('#access').hidden");
    assert!(page.text("#access").contains("started again"), "{}", page.text("#access"));
    page.keep("live-other-token");
    // The new address in the same tab: only what stands behind the # is another.
    page.go(&next.address);
    page.wait("document.querySelector('#offer')");
    assert!(page.text(".cm-content").contains("a half turn") && !page.text(".cm-content").contains("typed"));
    page.click("#offer button");
    let both = wait_for_file(&score, |text| text.starts_with("// Sails on a line. typed\n"));
    assert!(both.contains("a half turn"));
    page.wait("document.querySelector('#offer') === null");
    // Typed, and the tab is loaded again with the old address; a new tab at the new one offers it.
    next.kill();
    page.wait("document.body.dataset.line === 'closed'");
    to_first_line(&page);
    type_in(&page, " twice");
    page.run("location.reload()");
    let last = Live::start_at(&call, port);
    page.go("about:blank");
    page.go(&last.address);
    page.wait("document.querySelector('#offer')");
    page.click("#offer button:last-child");
    page.wait("document.querySelector('#offer') === null");
    page.run("location.reload()");
    page.wait_for_picture();
    assert_eq!(page.run("return document.querySelector('#offer')"), serde_json::Value::Null);
    assert_eq!(std::fs::read_to_string(&score).unwrap(), both);
    drop(folder);
}

#[test]
#[ignore = "needs Chromium"]
fn without_the_token_the_page_says_what_to_do() {
    let (_folder, _score, live, page) = sails();
    let bare = live.address.split('#').next().unwrap();
    for (address, told) in
        [(bare.to_owned(), "has no token"), (format!("{bare}#0123"), "is not that of the program")]
    {
        let other = Page::open(&address);
        other.wait("!document.querySelector('#access').hidden");
        let text = other.text("#access");
        assert!(text.contains(told) && text.contains("http://"), "{text}");
        other.keep("live-no-access");
        // The whole address, in the same tab.
        other.go(&live.address);
        other.wait_for_picture();
        assert_eq!(other.run("return document.querySelector('#access').hidden"), true);
    }
    drop(page);
}

#[test]
#[ignore = "needs Chromium"]
fn held_arrow_keys_move_by_every_press() {
    let (_folder, score, _live, page) = sails();
    let corner = page.place(SHEET, (80.0, 90.0));
    page.hover_grip(corner);
    page.click_at(corner);
    page.wait("document.querySelector('#overlay .chosen')");
    page.burst(RIGHT, 30, 33);
    wait_for_file(&score, |text| text.contains("closed([[110, 90], [220, 60]"));
    page.wait("!document.querySelector('#undo').disabled");
    // All of it is one step back.
    page.click("#undo");
    wait_for_file(&score, |text| text == SAILS);
    assert_eq!(page.run("return document.querySelector('#undo').disabled"), true);
    // Enlarged, too.
    page.hover_grip(corner);
    page.click_at(corner);
    page.wait("document.querySelector('#overlay .chosen')");
    page.keys(&[], &['+', '+', '+', '+', '+', '+']);
    page.burst(RIGHT, 15, 33);
    wait_for_file(&score, |text| text.contains("closed([[95, 90], [220, 60]"));
}

#[test]
#[ignore = "needs Chromium"]
fn buttons_on_the_picture_hear_the_pointer() {
    let (_folder, score, _live, page) = sails();
    std::fs::write(&score, SAILS.replace("polygon(pt(480, 130)", "poligon(pt(480, 130)")).unwrap();
    page.wait("!document.querySelector('#mistake').hidden");
    page.click("#mistake .go");
    wait("the cursor at the line", || page.text(".cm-activeLine").contains("poligon"));
}

/// What another program put in the file's place, and the page cannot show, is never written over.
#[test]
#[ignore = "needs Chromium"]
fn nothing_is_written_over_what_the_page_cannot_read() {
    let (_folder, score, _live, page) = sails();
    let bytes = |file: &std::path::Path| std::fs::read(file).unwrap();
    // Not text in UTF-8, and a text far over the limit.
    for other in [b"// Segel \xfcber See\n".to_vec(), b"// line\n".repeat(3 << 20)] {
        std::fs::write(&score, &other).unwrap();
        page.wait("document.querySelector('#file').dataset.state === 'unsaved'");
        assert!(page.text("#file").contains("nothing is written over it"), "{}", page.text("#file"));
        to_first_line(&page);
        type_in(&page, " mine");
        std::thread::sleep(std::time::Duration::from_millis(900));
        assert!(bytes(&score) == other, "{} bytes were written over", other.len());
        // The page still shows what it had, with what was typed.
        assert!(page.text(".cm-content").contains(" mine"));
        std::fs::remove_file(&score).unwrap();
        type_in(&page, "!");
        wait_for_file(&score, |text| text.contains(" mine!"));
    }
}

/// Where the browser cannot store what was typed, it asks before the page is left.
#[test]
#[ignore = "needs Chromium"]
fn leaving_asks_where_what_was_typed_cannot_be_stored() {
    let (_folder, _score, live, page) = sails();
    let leaves = || {
        page.run("const event = new Event('beforeunload', { cancelable: true }); window.dispatchEvent(event); return !event.defaultPrevented")
    };
    assert_eq!(leaves(), true);
    page.cut();
    to_first_line(&page);
    type_in(&page, " typed");
    assert_eq!(leaves(), true);
    page.run("Storage.prototype.setItem = () => { throw new DOMException('full', 'QuotaExceededError'); }");
    type_in(&page, " more");
    assert_eq!(leaves(), false);
    page.join();
    page.wait("document.querySelector('#file').textContent.startsWith('saved ')");
    assert_eq!(leaves(), true);
    drop(live);
}
