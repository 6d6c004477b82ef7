//! About sixty small sheets, one for each way to paint, mix, cut off and read, drawn by us and by Chromium. Run with `--include-ignored`
//! where Chromium is installed.
//!
//! The browser's pictures are taken at four times the size and averaged, and at eight times where that is too coarse: at true size its own
//! antialiasing is farther from the truth than what is looked for.

use std::path::Path;

use super::browser::{pixels, shown_together};
use super::support::{chordane, loft};

pub(crate) const WIDTH: u32 = 160;
pub(crate) const HEIGHT: u32 = 120;

/// How many times as large the browser's pictures are taken, and how many of them on one page: first the quick way, then the exact one.
const QUICK: (u32, usize) = (4, 20);
const EXACT: (u32, usize) = (8, 5);

/// How far a picture may be off on the average, of 255, and which share of its pixels by more than 24. What the browser blurs it blurs by three boxes,
/// which is up to one part in a hundred of a step off the Gaussian curve that we draw.
pub(crate) const MAX_MEAN: f64 = 0.3;
pub(crate) const MAX_MEAN_BLURRED: f64 = 0.7;
pub(crate) const MAX_OFF: f64 = 0.002;

/// A sheet: its name, and what is drawn on it, as a score.
type Scored = (&'static str, &'static str);

/// What every score begins with. Opacities are such as are whole in eight bits, to which the browser rounds them.
const BEGIN: &str = r##"
let sail = start(pt(0, -48)).line(pt(44, -12)).line(pt(0, 50)).line(pt(-44, -12)).close();
let ground = linear_gradient(pt(0, 0), pt(1, 1)).colours(["#f4efe6", "#9fc3c1"]).measured("box");
let page = sheet(160, 120).centred().ground("#f4efe6");
let weave = picture(["#c8553d", "#f4efe6", "#2f6f73", "#d9a441", "#20303c", "#c8553d", "#f4efe6", "#2f6f73", "#9fc3c1", "#d9a441", "#20303c", "#c8553d", "#2f6f73", "#9fc3c1", "#d9a441", "#20303c"], 4);
let discs = group()
    .add(circle(pt(-18, -8), 34).fill("#c8553d"))
    .add(circle(pt(20, -8), 34).fill("#d9a441"))
    .add(circle(pt(0, 20), 34).fill("#2f6f73"));
"##;

const SCORES: &[Scored] = &[
    ("clip-item", r##"page.add(sail.fill("teal").stroke("navy", 6).clipped(circle(pt(0, 0), 32)))"##),
    ("clip-group", r##"page.add(discs.clipped(star(pt(0, 0), 7, 55, 30)).rotated(deg(20)))"##),
    ("clip-evenodd", r##"page.add(discs.clipped(star_polygon(pt(0, 0), 5, 2, 56).fill_rule("evenodd")))"##),
    (
        "clip-nested",
        r##"page.add(group().add(discs.clipped(circle(pt(0, 0), 40))).clipped(sail).opacity(0.8))"##,
    ),
    (
        "mask-luminance",
        r##"page.add(discs.masked(rectangle(pt(-80, -60), 160, 120).fill(linear_gradient(pt(-50, 0), pt(50, 0)).colours(["white", "black"]))))"##,
    ),
    (
        "mask-alpha",
        r##"page.add(discs.masked_by(group().add(circle(pt(-20, 0), 34).fill("navy")).add(circle(pt(22, 0), 30).fill("rgb(0 0 0 / 40%)")), "alpha"))"##,
    ),
    (
        "mask-colours",
        r##"page.add(discs.masked(group().add(rectangle(pt(-80, -60), 70, 120).fill("#ff0000")).add(rectangle(pt(-10, -60), 40, 120).fill("#00ff00")).add(rectangle(pt(30, -60), 60, 120).fill("#0000ff"))))"##,
    ),
    ("mask-soft", r##"page.add(discs.masked(circle(pt(0, 0), 36).fill("white").blurred(6)))"##),
    ("opacity-group", r##"page.add(discs.opacity(0.8))"##),
    ("opacity-both", r##"page.add(sail.fill("teal").stroke("navy", 12).opacity(0.6))"##),
    ("blur-2", r##"page.add(sail.fill("teal").stroke("navy", 4).blurred(2))"##),
    ("blur-9", r##"page.add(discs.blurred(9))"##),
    ("blur-turned", r##"page.add(sail.fill("teal").blurred(3).scaled(1.4).rotated(deg(30)))"##),
    ("blur-uneven", r##"page.add(sail.fill("teal").blurred(3).scaled_by([1.5, 0.5]))"##),
    ("shadow", r##"page.add(sail.fill("white").shadow([6, 8], 4, "rgb(32 48 60 / 70%)"))"##),
    ("shadow-sharp", r##"page.add(discs.shadow([5, 5], 0, "#20303c").opacity(0.8))"##),
    (
        "glow",
        r##"sheet(160, 120).centred().ground("#20303c").add(circle(pt(0, 0), 16).fill("#fff6d8").glow(5, "gold").glow(14, "#c8553d"))"##,
    ),
    (
        "glow-clipped",
        r##"sheet(160, 120).centred().ground("#20303c").add(group().add(sail.fill("#ffe9a8").glow(8, "gold")).clipped(circle(pt(0, 0), 44)))"##,
    ),
    (
        "isolated",
        r##"page.add(group().add(circle(pt(-15, 0), 34).fill("teal")).add(circle(pt(15, 0), 34).fill("gold").blend("multiply")).isolated())"##,
    ),
    (
        "mixed-with-below",
        r##"page.add(group().add(circle(pt(-15, 0), 34).fill("teal")).add(circle(pt(15, 0), 34).fill("gold").blend("multiply")))"##,
    ),
    (
        "order",
        r##"page.add(circle(pt(-12, 0), 34).fill("teal").order(2)).add(circle(pt(12, 0), 34).fill("gold").order(-1)).add(sail.fill("navy"))"##,
    ),
    (
        "gradient-linear",
        r##"page.add(sail.fill(linear_gradient(pt(-40, -40), pt(40, 40)).colours(["gold", "teal", "navy"])))"##,
    ),
    (
        "gradient-radial",
        r##"page.add(circle(pt(0, 0), 50).fill(radial_gradient(pt(0, 0), 30).colours(["white", "teal", "navy"]).focus(pt(12, -9)).spread("reflect")))"##,
    ),
    (
        "gradient-repeat",
        r##"page.add(sail.fill(linear_gradient(pt(0, 0), pt(14, 5)).colours(["gold", "teal"]).spread("repeat")))"##,
    ),
    (
        "gradient-oklab",
        r##"page.add(rectangle(pt(-70, -40), 140, 80).fill(linear_gradient(pt(-70, 0), pt(70, 0)).colours(["gold", "navy"]).mixed("oklab")))"##,
    ),
    (
        "gradient-stroke",
        r##"page.add(circle(pt(0, 0), 40).stroke(linear_gradient(pt(0, 0), pt(1, 1)).colours(["gold", "navy"]).measured("box"), 14).dash([22, 8]))"##,
    ),
    (
        "gradient-clear",
        r##"page.add(sail.fill(linear_gradient(pt(0, -48), pt(0, 50)).colours(["rgb(200 85 61 / 0%)", "rgb(47 111 115)"])))"##,
    ),
    (
        "sweep",
        r##"page.add(circle(pt(0, 0), 50).fill(sweep_gradient(pt(0, 0), deg(-90)).colours(["gold", "teal", "navy", "gold"])))"##,
    ),
    (
        "stroke-kinds",
        r##"page.add(through([[-70, 30], [-30, -40], [0, 30], [30, -40], [70, 30]]).open().stroke("navy", 10).cap("round").join("round").dash([18, 14]))"##,
    ),
    (
        "stroke-mitre",
        r##"page.add(star(pt(0, 0), 5, 50, 18).stroke("navy", 7).mitre_limit(8).fill("gold"))"##,
    ),
    (
        "picture-nearest",
        r##"page.add(circle(pt(0, 0), 50).fill(weave.sampled("nearest").over(cell(pt(-40, -40), 80, 80))))"##,
    ),
    ("picture-smooth", r##"page.add(circle(pt(0, 0), 50).fill(weave.over(cell(pt(-50, -50), 100, 100))))"##),
    (
        "picture-item",
        r##"page.add(weave.sampled("nearest").fitted("contain").shown_in(cell(pt(-60, -48), 96, 96)).rotated(deg(10)))"##,
    ),
    (
        "picture-reduced",
        r##"let shades = [];
for i in 0..40000 { shades.push(hsl(deg(i % 200 * 1.8), 60, 30 + i / 200 * 0.2)); }
page.add(circle(pt(0, 0), 50).fill(picture(shades, 200).over(cell(pt(-50, -50), 100, 100))))"##,
    ),
    (
        "pattern",
        r##"page.add(circle(pt(0, 0), 50).fill(pattern(cell(pt(0, 0), 13, 11), circle(pt(6, 5), 4).fill("teal").stroke("navy", 1))))"##,
    ),
    (
        "pattern-turned",
        r##"page.add(sail.fill(pattern(cell(pt(0, 0), 9, 9), rectangle(pt(0, 0), 9, 4).fill("#c8553d")).rotated(deg(33))).stroke(pattern(sheet(4, 4).ground("gold").add(rectangle(pt(0, 0), 2, 4).fill("navy"))), 9))"##,
    ),
    (
        "pattern-cut",
        r##"page.add(rectangle(pt(-70, -50), 140, 100).fill(pattern(cell(pt(-6, -4), 20, 20), circle(pt(0, 0), 12).fill("teal")).scaled(0.8)))"##,
    ),
    ("vertex-colours", r##"page.add(sail.fill(by_vertex(["gold", "teal", "navy", "#c8553d"])))"##),
    (
        "vertex-colours-hole",
        r##"page.add(star(pt(0, 0), 6, 56, 30).with_hole(circle(pt(0, 0), 14)).fill(by_vertex(["gold", "teal", "navy"])))"##,
    ),
    (
        "along-line",
        r##"page.add(through([[-70, 30], [-30, -40], [0, 30], [30, -40], [70, 30]]).open().stroke(along(linear_gradient([0, 0], [1, 0]).colours(["gold", "teal", "navy"])), 12))"##,
    ),
    (
        "units",
        r##"sheet(160, 120).add(rectangle(pt(20, 20), 100, 70).fill("teal").stroke("navy", 5).join("bevel"))"##,
    ),
];

/// Every blend mode over the same two colours and a gradient.
fn modes() -> Vec<(String, String)> {
    use chordane::ground::Named;
    let score = |mode: &str| {
        format!(
            r##"page.add(rectangle(pt(-70, -50), 140, 60).fill(linear_gradient(pt(-70, 0), pt(70, 0)).colours(["#1f4e79", "#c8553d", "#d9c24a"])))
    .add(rectangle(pt(-64, -20), 60, 60).fill("rgb(47 111 115 / 80%)"))
    .add(circle(pt(26, 0), 44).fill("rgb(217 164 65 / 85%)").blend("{mode}"))"##
        )
    };
    let names = chordane::sheet::BlendMode::NAMES;
    names.iter().map(|mode| (format!("blend-{mode}"), score(mode))).collect()
}

#[test]
#[ignore = "needs Chromium"]
#[allow(clippy::print_stdout, reason = "how far each sheet is off is what one wants to read")]
fn the_browser_shows_every_kind_of_sheet_as_we_draw_it() {
    let folder = tempfile::tempdir().unwrap();
    let at = |name: &str| folder.path().join(name);
    let mut names = Vec::new();
    let scores = SCORES.iter().map(|(name, text)| ((*name).to_owned(), (*text).to_owned())).chain(modes());
    for (name, text) in scores {
        let score = at(&format!("{name}.chord"));
        std::fs::write(&score, format!("{BEGIN}\n{text}\n")).unwrap();
        let out = at(&format!("{name}.png"));
        chordane()
            .arg("draw")
            .arg(&score)
            .arg("-o")
            .arg(&out)
            .arg("-o")
            .arg(at(&format!("{name}.svg")))
            .assert()
            .success();
        names.push(name);
    }
    for (name, text) in super::documents::documents() {
        std::fs::write(at(&format!("{name}.svg")), text).unwrap();
        let out = at(&format!("{name}.png"));
        let drawn =
            chordane().arg("draw").arg(at(&format!("{name}.svg"))).arg("-o").arg(&out).assert().success();
        let said = String::from_utf8_lossy(&drawn.get_output().stderr).into_owned();
        assert!(!said.contains("note:"), "{name}: {said}");
        names.push(name);
    }
    let files = names.iter().map(|name| at(&format!("{name}.svg")));
    let read =
        std::process::Command::new("xmllint").arg("--noout").args(files).status().expect("xmllint runs");
    assert!(read.success());
    let looked_at = |names: &[String], (times, a_page): (u32, usize)| -> Vec<(f64, f64, String)> {
        let pages = names.chunks(a_page);
        let theirs = pages.flat_map(|some| seen(folder.path(), some, "img", times));
        let weighed = names.iter().zip(theirs).map(|(name, theirs)| {
            let (mean, share) = off_by(&at(&format!("{name}.png")), &theirs);
            (mean, share, name.clone())
        });
        weighed.collect()
    };
    let blurred = |name: &str| {
        ["blur", "glow", "shadow", "mask-soft", "document-filters"].iter().any(|word| name.starts_with(word))
    };
    let most = |name: &str| if blurred(name) { MAX_MEAN_BLURRED } else { MAX_MEAN };
    let badness = |(mean, share, name): &(f64, f64, String)| mean / most(name) + share / MAX_OFF;
    let is_off = |(mean, share, name): &(f64, f64, String)| *mean >= most(name) || *share >= MAX_OFF;
    let (coarse, mut told): (Vec<_>, Vec<_>) = looked_at(&names, QUICK).into_iter().partition(is_off);
    let coarse: Vec<String> = coarse.into_iter().map(|(.., name)| name).collect();
    told.extend(looked_at(&coarse, EXACT));
    told.sort_by(|a, b| badness(a).total_cmp(&badness(b)));
    for (mean, share, name) in &told {
        println!("{name}: {mean:.3} of 255 on the average, {:.3} % off by more than 24", share * 100.0);
    }
    if let Ok(kept) = std::env::var("CHORDANE_KEEP_SHEETS") {
        for entry in std::fs::read_dir(folder.path()).unwrap().flatten() {
            let _ = std::fs::copy(entry.path(), Path::new(&kept).join(entry.file_name()));
        }
    }
    let wrong: Vec<_> = told.iter().filter(|told| is_off(told)).collect();
    assert!(wrong.is_empty(), "{wrong:?}");
    assert!(told.len() >= 75);
}

/// How far a picture of ours is off what the browser shows, on the average of 255, and which share of its pixels by more than 24.
pub(crate) fn off_by(ours: &Path, theirs: &[f64]) -> (f64, f64) {
    let all = pixels(ours);
    assert_eq!(all.len(), theirs.len(), "{ours:?}");
    let off: Vec<f64> = all.iter().zip(theirs).map(|(a, b)| (f64::from(*a) - b).abs()).collect();
    let much = off.chunks(3).filter(|pixel| pixel.iter().any(|d| *d > 24.0)).count();
    (off.iter().sum::<f64>() / off.len() as f64, much as f64 * 3.0 / off.len() as f64)
}

/// Some sheets as the browser shows them in elements of a name, so many times as large and averaged down: red, green and blue of each pixel.
pub(crate) fn seen(folder: &Path, names: &[String], element: &str, times: u32) -> Vec<Vec<f64>> {
    let all = shown_together(folder, names, element, [WIDTH * times, HEIGHT * times]);
    let (wide, times) = ((WIDTH * times * 3) as usize, times as usize);
    let averaged = all.iter().map(|picture| {
        let rows = picture.chunks_exact(wide * times).flat_map(|rows| {
            let mut sums = vec![0_u32; (WIDTH * 3) as usize];
            for row in rows.chunks_exact(wide) {
                for (block, sum) in row.chunks_exact(3 * times).zip(sums.chunks_exact_mut(3)) {
                    for pixel in block.chunks_exact(3) {
                        sum[0] += u32::from(pixel[0]);
                        sum[1] += u32::from(pixel[1]);
                        sum[2] += u32::from(pixel[2]);
                    }
                }
            }
            sums
        });
        rows.map(|sum| f64::from(sum) / (times * times) as f64).collect()
    });
    averaged.collect()
}

/// Scores whose words use all threads, run on all threads: none waits for another for ever.
#[test]
fn many_scores_that_put_shapes_together_are_drawn_at_once() {
    let plates = r##"let wide = knob("wide", 40, 10, 80);
let plates = (0..90).map(|i| circle(polar(deg(i * 137.5), i * 1.2), wide / 3));
sheet(320, 320).centred().add(union_all(plates).fill("#2f6f73"))
"##;
    let (folder, score) = loft(plates);
    let mut call = chordane();
    call.arg("vary").arg(&score).args(["--over", "wide=10..80:12", "-o"]).arg(folder.path().join("all.png"));
    call.timeout(std::time::Duration::from_secs(100)).assert().success();
    let mut call = chordane();
    call.arg("draw").arg(&score).args(["--frames", "12", "-o"]).arg(folder.path().join("frame.png"));
    call.timeout(std::time::Duration::from_secs(100)).assert().success();
}
