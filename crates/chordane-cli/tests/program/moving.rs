//! Scores that move as one SVG document: what is said and what cannot be; and at eight moments of the loop the browser shows our frames.

use predicates::str::contains;

use crate::browser::pixels;
use crate::sheets::{HEIGHT, MAX_MEAN, MAX_MEAN_BLURRED, MAX_OFF, WIDTH, off_by, seen};
use crate::support::{chordane, loft};

/// What every score begins with.
const BEGIN: &str = r##"
let t = phase();
let sail = start(pt(0, -48)).line(pt(44, -12)).line(pt(0, 50)).line(pt(-44, -12)).close();
let ground = linear_gradient(pt(0, 0), pt(1, 1)).colours(["#f4efe6", "#9fc3c1"]).measured("box");
let page = sheet(160, 120).centred().ground("#f4efe6");
let discs = group()
    .add(circle(pt(-18, -8), 34).fill("#c8553d"))
    .add(circle(pt(20, -8), 34).fill("#d9a441"))
    .add(circle(pt(0, 20), 34).fill("#2f6f73"));
"##;

/// What moves, in every way that can be said.
const SCORES: &[(&str, &str)] = &[
    (
        "turned",
        r##"page.add(discs.rotated(saw(t, turns(0), turns(1))).scaled_by([1.2, 0.7]).moved([swing(t, -30, 30), 0]))"##,
    ),
    (
        "slanted",
        r##"page.add(sail.fill("teal").scaled_by([1, swing(t, 0.4, 1.3)]).rotated(deg(30)).scaled_by([swing(t, 1, 1.5), 1]))"##,
    ),
    ("flipped", r##"page.add(group().add(discs).scaled_by([swing(t, -1, 1), 1]))"##),
    ("grown", r##"page.add(group().add(discs).rotated(saw(t, turns(0), turns(1))).scaled(swing(t, 0, 1)))"##),
    (
        "morphed",
        r##"page.add(sail.morphed(circle(pt(0, 0), 45), swing(t, 0, 1)).fill("teal").stroke("navy", 3))"##,
    ),
    (
        "opened",
        r##"page.add(pie(pt(0, 0), 46, deg(20), swing(t, deg(30), deg(320))).fill("#d9a441").stroke("navy", 4))"##,
    ),
    (
        "coloured",
        r##"page.add(sail.fill(mix("teal", "gold", swing(t, 0, 1))).stroke(mix("navy", "white", swing(t, 0, 1)), swing(t, 2, 12)).opacity(swing(t, 0.4, 1)))"##,
    ),
    (
        "dashed",
        r##"page.add(circle(pt(0, 0), 40).stroke("navy", 6).dash([swing(t, 10, 20), 8]).marching(t))"##,
    ),
    (
        "gradient",
        r##"page.add(sail.fill(linear_gradient(pt(-40, swing(t, -40, 0)), pt(40, 40)).colours([mix("gold", "navy", swing(t, 0, 1)), "teal"])))"##,
    ),
    ("gradient-box", r##"page.add(sail.rotated(saw(t, turns(0), turns(1))).fill(ground))"##),
    ("clipped", r##"page.add(discs.clipped(circle(pt(swing(t, -30, 30), 0), 32)))"##),
    ("masked", r##"page.add(discs.masked(circle(pt(0, swing(t, -20, 20)), 36).fill("white")))"##),
    ("blurred", r##"page.add(sail.fill("teal").blurred(swing(t, 1, 6)))"##),
    (
        "filled",
        r##"let one = sail.stroke("navy", 4); page.add(if t < 0.5 { one.fill("gold") } else { one })"##,
    ),
    ("stroked", r##"page.add(sail.fill("gold").stroke("navy", max(0, swing(t, -4, 6))))"##),
    ("held", r##"page.add(sail.fill("teal").moved([hold(t, [-30, 0, 30, 0]), 0]))"##),
    (
        "drawn",
        r##"page.add(through([[-70, 30], [-30, -40], [0, 30], [30, -40], [70, 30]]).open().drawn_in(swing(t, 0, 1)).stroke("navy", 5))"##,
    ),
    (
        "drawn-out",
        r##"page.add(sail.and(open([[-70, 50], [70, 50]])).drawn_out(saw(t, 0, 1)).stroke("navy", 5).cap("round"))"##,
    ),
    (
        "spring",
        r##"page.add(circle(pt(0, keys([[0, -40], [0.5, 40], [1, -40]]).eased("ease-in-out").at(t)), 14).fill("teal"))"##,
    ),
];

/// The browser's pictures are taken so many times as large, and so many on one page.
const TIMES: u32 = 4;
const A_PAGE: usize = 24;

/// Frames of a loop, and the moments that are looked at.
const FRAMES: usize = 24;
const MOMENTS: usize = 8;

#[test]
#[ignore = "needs Chromium"]
#[allow(clippy::print_stdout, reason = "how far each is off is what one wants to read")]
fn the_browser_plays_what_moves_as_we_draw_it() {
    let folder = tempfile::tempdir().unwrap();
    let at = |name: &str| folder.path().join(name);
    let (wide, high) = (WIDTH * TIMES, HEIGHT * TIMES);
    let mut names = Vec::new();
    for (name, text) in SCORES {
        let score = at(&format!("{name}.chord"));
        std::fs::write(&score, format!("{BEGIN}\n{text}\n")).unwrap();
        let moving = at(&format!("{name}.svg"));
        let mut call = chordane();
        call.arg("draw").arg(&score).arg("-o").arg(&moving);
        call.args(["--frames", &FRAMES.to_string(), "--seconds", "8", "--size", &format!("{wide}x{high}")]);
        call.assert().success();
        let pictures = at(&format!("{name}.png"));
        let mut call = chordane();
        call.arg("draw").arg(&score).args(["--frames", &MOMENTS.to_string(), "-o"]).arg(&pictures);
        call.assert().success();
        let text = std::fs::read_to_string(&moving).unwrap();
        for moment in 0..MOMENTS {
            // A loop takes as many seconds as there are moments.
            let own = format!("{name}-{:04}", moment + 1);
            let stopped = format!(
                "<script>document.documentElement.pauseAnimations();document.documentElement.setCurrentTime({moment})</script></svg>"
            );
            std::fs::write(at(&format!("{own}.svg")), text.replace("</svg>", &stopped)).unwrap();
            names.push(own);
        }
    }
    let mut told = Vec::new();
    for some in names.chunks(A_PAGE) {
        for (name, theirs) in some.iter().zip(seen(folder.path(), some, "iframe", TIMES)) {
            let (mean, share) = off_by(&at(&format!("{name}.png")), &theirs);
            told.push((mean, share, name.clone()));
        }
    }
    if let Ok(kept) = std::env::var("CHORDANE_KEEP_SHEETS") {
        for entry in std::fs::read_dir(folder.path()).unwrap().flatten() {
            let _ = std::fs::copy(entry.path(), std::path::Path::new(&kept).join(entry.file_name()));
        }
    }
    let most = |name: &str| if name.starts_with("blurred") { MAX_MEAN_BLURRED } else { MAX_MEAN };
    told.sort_by(|a, b| a.0.total_cmp(&b.0));
    for (mean, share, name) in &told {
        println!("{name}: {mean:.3} of 255 on the average, {:.3} % off by more than 24", share * 100.0);
    }
    let wrong: Vec<_> =
        told.iter().filter(|(mean, share, name)| *mean >= most(name) || *share >= MAX_OFF).collect();
    assert!(wrong.is_empty(), "{wrong:?}");
    assert_eq!(told.len(), SCORES.len() * MOMENTS);
}

#[test]
fn what_cannot_be_said_is_told_with_its_items() {
    let (folder, score) = loft(
        r##"let t = phase();
sheet(64, 48).centred()
    .add(polygon(pt(0, 0), if t < 0.5 { 4 } else { 5 }, 20).fill("teal").named("vent"))
    .add(circle(pt(0, 0), 4).fill(if t < 0.25 { "gold" } else { "#c8553d" }))
"##,
    );
    let out = folder.path().join("kite.svg");
    let mut call = chordane();
    call.arg("draw").arg(&score).args(["--frames", "8", "-o"]).arg(&out);
    call.assert()
        .failure()
        .code(1)
        .stderr(contains(
            "this motion cannot be written as animated SVG:\n  item 1 (vent, line 3): its path has 4 vertices in one frame and 5 in another",
        ))
        .stderr(contains("or draw a .gif or .apng instead"));
    assert!(!out.exists());
    let (_folder, score) = loft(
        "let page = sheet(64, 48); for i in 0..1 + floor(phase() * 3) { page.add(circle(pt(9 * i, 9), 4)); } page\n",
    );
    let mut call = chordane();
    call.arg("draw").arg(&score).args(["--frames", "8", "-o", "-", "--as", "svg"]);
    call.assert().failure().code(1).stdout("").stderr(contains("frame 1 has 1 item, and frame 4 has 2"));
    let mut call = chordane();
    call.arg("draw").arg(&score).args(["--frames", "5000", "-o", "long.svg"]);
    call.assert()
        .failure()
        .code(2)
        .stderr(contains("an animated SVG can have at most 1000 frames, got 5000"));
}

#[test]
fn a_document_that_moves_is_its_first_frame_to_who_does_not_play_it() {
    let (folder, score) = loft(
        r##"let t = phase();
sheet(64, 48).centred().ground("#f4efe6").add(circle(pt(swing(t, -20, 20), 0), 6).fill("#c8553d"))
"##,
    );
    let at = |name: &str| folder.path().join(name);
    let draw = |input: &std::path::Path, out: &str, more: &[&str]| {
        chordane().arg("draw").arg(input).args(more).arg("-o").arg(at(out)).assert().success()
    };
    draw(&score, "moving.svg", &["--frames", "12", "--seconds", "1.5"]);
    draw(&score, "still.png", &[]);
    let told = draw(&at("moving.svg"), "read.png", &[]);
    told.stderr(contains("animate is ignored: the drawing is shown without its motion"));
    assert_eq!(pixels(&at("read.png")), pixels(&at("still.png")));
    let text = std::fs::read_to_string(at("moving.svg")).unwrap();
    assert_eq!(text.matches("<animate ").count(), 1);
    assert!(text.contains(r#" dur="1.5s" repeatCount="indefinite"/>"#), "{text}");
}
