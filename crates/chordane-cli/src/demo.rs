//! `chordane demo`: the pictures of every demo score, and a page that shows them beside their scores.

use std::fmt::Write;
use std::path::Path;
use std::time::Instant;

use chordane::number::Point;
use chordane::sheet::WriteOptions;
use chordane::write::{Dither, Format, write_whole};
use chordane_score::{Limits, Runner, Settings};

use crate::clip::ClipPlan;
use crate::failure::Failure;
use crate::input::Origin;
use crate::memory::GAUGE;
use crate::options::DemoOptions;
use crate::output::{say, time};
use crate::record::Record;
use crate::tracker;

/// The demo's scores: the name, a line about it, the source.
const SCORES: &[(&str, &str, &str)] = &[
    ("first-sail", "Four typed vertices and a round vent.", include_str!("../demo/first-sail.chord")),
    (
        "spar-polygons",
        "Vertices from sine and cosine, with 3 to 60 steps round a full turn.",
        include_str!("../demo/spar-polygons.chord"),
    ),
    (
        "star-vents",
        "Stars, and a ring of vents punched into a sail.",
        include_str!("../demo/star-vents.chord"),
    ),
    ("tails", "Kite tails of quadratics, cubics and arcs, with dashes.", include_str!("../demo/tails.chord")),
    (
        "wings",
        "Smooth curves through points, corners and arcs in one contour.",
        include_str!("../demo/wings.chord"),
    ),
    (
        "kite-photo",
        "A kite as a camera would see it, to be traced: chordane trace kite-photo.png -o outline.svg.",
        include_str!("../demo/kite-photo.chord"),
    ),
    (
        "traced-sail",
        "A sail's outline traced over a pattern, one handle for each side.",
        include_str!("../demo/traced-sail.chord"),
    ),
    (
        "stencil",
        "Holes cut by a broad nib: upright and level bars of their own widths.",
        include_str!("../demo/stencil.chord"),
    ),
    ("tags", "One shape as a function of its cell, at three sizes.", include_str!("../demo/tags.chord")),
    (
        "patchwork",
        "A sail pieced by chance: another seed is another sail.",
        include_str!("../demo/patchwork.chord"),
    ),
    (
        "banner",
        "A festival banner in millimetres, drawn with a turning pen.",
        include_str!("../demo/banner.chord"),
    ),
    (
        "overlaps",
        "Translucent sails: fill rules, opacity, joins and caps.",
        include_str!("../demo/overlaps.chord"),
    ),
    ("shapes", "One of each ready shape, in a labelled grid.", include_str!("../demo/shapes.chord")),
    (
        "lace-reel",
        "Lace from turning wheels, and a wheel rolling in a ring.",
        include_str!("../demo/lace-reel.chord"),
    ),
    (
        "spar-triangle",
        "A triangle from its legs, and the turns that a pen must make.",
        include_str!("../demo/spar-triangle.chord"),
    ),
    (
        "notched-banner",
        "A banner as a function of the sheet: its notch keeps its size.",
        include_str!("../demo/notched-banner.chord"),
    ),
    (
        "dusk",
        "A sail at dusk, with gradients in its cloth, the sky and the sea.",
        include_str!("../demo/dusk.chord"),
    ),
    (
        "painted-sail",
        "A sail printed with a picture of woven cloth, in soft light, with its shadow.",
        include_str!("../demo/painted-sail.chord"),
    ),
    (
        "lantern-flight",
        "Kites with glowing lanterns at dusk, mirrored in the water through a mask.",
        include_str!("../demo/lantern-flight.chord"),
    ),
    (
        "coarse-kite",
        "A kite for a screen of coarse pixels: none is painted in part.",
        include_str!("../demo/coarse-kite.chord"),
    ),
    (
        "shaded-banner",
        "Banners with a colour for every vertex, and colours along their line.",
        include_str!("../demo/shaded-banner.chord"),
    ),
    (
        "linked-hoops",
        "Hoops that hang in one another: a rosette and a chain.",
        include_str!("../demo/linked-hoops.chord"),
    ),
    ("woven-hoops", "Hoops woven in a ring without a seam.", include_str!("../demo/woven-hoops.chord")),
    (
        "sail-family",
        "A family of sails: each seed has one of its own.",
        include_str!("../demo/sail-family.chord"),
    ),
    ("reshapes", "Every reshape at three settings.", include_str!("../demo/reshapes.chord")),
    (
        "bow-tails",
        "Bows that shrink along their tails and change colour.",
        include_str!("../demo/bow-tails.chord"),
    ),
    (
        "dipping-kite",
        "A kite that dips and turns on its line, with its tail following.",
        include_str!("../demo/dipping-kite.chord"),
    ),
    (
        "line-drawing-itself",
        "A kite drawn in one line, by a timeline of four spans.",
        include_str!("../demo/line-drawing-itself.chord"),
    ),
    (
        "opening-banner",
        "A festival banner whose opening moves and grows by keys.",
        include_str!("../demo/opening-banner.chord"),
    ),
    (
        "spinning-ring",
        "A ring of sails that spins without a seam.",
        include_str!("../demo/spinning-ring.chord"),
    ),
    (
        "coarse-flight",
        "A kite of coarse pixels that flies across without a flicker.",
        include_str!("../demo/coarse-flight.chord"),
    ),
    (
        "windy-flight",
        "A flight of kites in a wind that comes round: each seed is another.",
        include_str!("../demo/windy-flight.chord"),
    ),
    ("drawn-line", "A line that draws itself, at five phases.", include_str!("../demo/drawn-line.chord")),
    (
        "stencil-hem",
        "A stencil by union and difference, and its hem.",
        include_str!("../demo/stencil-hem.chord"),
    ),
    (
        "freehand",
        "A line drawn by hand, and the curves fitted to it.",
        include_str!("../demo/freehand.chord"),
    ),
    ("flight", "A small flight of kites over the skerry.", include_str!("../demo/flight.chord")),
];

pub(crate) fn write(options: &DemoOptions) -> Result<(), Failure> {
    if options.tracker {
        return tracker::stream(options.frames);
    }
    let begin = Instant::now();
    let folder = &options.out;
    std::fs::create_dir_all(folder).map_err(|error| {
        Failure::machine(
            format!("the folder {} cannot be made: {error}", folder.display()),
            "name another place with --out",
        )
    })?;
    let save = |name: String, bytes: &[u8]| {
        let file = folder.join(name);
        write_whole(&file, bytes).map_err(|error| Failure::writing(&file, &error))
    };
    let mut moving = Vec::new();
    for (name, _, source) in SCORES {
        let file = format!("{name}.chord");
        let settings = Settings::new();
        let runner = Runner::read(&file, *source, Limits { gauge: Some(GAUGE), ..Limits::default() })?;
        let run = runner.run(&settings);
        let settings = settings.seed(run.seed());
        let moves = run.moves();
        let sheet = run.into_sheet()?;
        let origin = Origin { name: file, source: Some((*source).to_owned()) };
        let sheet = Record::of(&origin, &settings).put_on(sheet);
        let broken = |error: String| Failure::input(format!("{name}: {error}"), "mend the demo's score");
        let svg = sheet.svg().map_err(|error| broken(error.to_string()))?;
        let pixels = sheet.pixels_with(&WriteOptions::sized(1280, 960));
        let pixels = pixels.map_err(|error| broken(error.to_string()))?;
        save(format!("{name}.chord"), source.as_bytes())?;
        save(format!("{name}.svg"), svg.as_bytes())?;
        save(format!("{name}.png"), &pixels.png().map_err(|error| broken(error.to_string()))?)?;
        if moves {
            let own = clip_size(sheet.size);
            let frame = |frame: usize| {
                let sheet =
                    runner.run(&settings.clone().seconds(SECONDS).frame(frame, FRAMES)).into_sheet()?;
                let pixels = sheet.pixels_with(&WriteOptions::sized(own.0, own.1));
                pixels.map_err(|error| broken(error.to_string()))
            };
            let plan = ClipPlan {
                count: FRAMES,
                seconds: SECONDS,
                format: Format::Gif,
                shared: true,
                dither: Dither::Ordered,
            };
            plan.write(Some(&folder.join(format!("{name}.gif"))), &frame)?;
            moving.push(*name);
        }
    }
    save("index.html".to_owned(), page(&moving).as_bytes())?;
    let page = folder.join("index.html");
    let shown = std::path::absolute(&page).unwrap_or(page);
    say(&format!("{} scores drawn in {}", SCORES.len(), time(begin.elapsed())));
    say(&format!("look at {}", shown.display()));
    say(&format!("then change a number in {} and draw it again:", place(folder, "first-sail.chord")));
    say(&format!(
        "  chordane draw {} -o {}",
        place(folder, "first-sail.chord"),
        place(folder, "first-sail.png")
    ));
    Ok(())
}

fn place(folder: &Path, file: &str) -> String {
    folder.join(file).display().to_string()
}

/// The clips: how many frames in how many seconds.
const FRAMES: usize = 45;
const SECONDS: f64 = 3.0;

/// The size of a clip: that of its sheet, small ones enlarged by a whole factor.
fn clip_size(size: Point) -> (u32, u32) {
    let factor = (640.0 / size.x).floor().max(1.0);
    ((size.x * factor) as u32, (size.y * factor) as u32)
}

/// The page: one row a score, the picture beside the text. What moves plays, and is at rest where a person has asked for less motion.
fn page(moving: &[&str]) -> String {
    let mut page = String::from(PAGE_HEAD);
    for (name, about, source) in SCORES {
        let (picture, clip) = if moving.contains(name) {
            let still = format!("<source media=\"(prefers-reduced-motion: reduce)\" srcset=\"{name}.svg\">");
            let picture = format!("<picture>{still}<img src=\"{name}.gif\" alt=\"{about}\"></picture>");
            (picture, format!(" <a href=\"{name}.gif\">clip</a>"))
        } else {
            (format!("<img src=\"{name}.svg\" alt=\"{about}\">"), String::new())
        };
        let _ = write!(
            page,
            "<section id=\"{name}\">\n<figure>{picture}\n\
             <figcaption><a href=\"{name}.svg\">SVG</a> <a href=\"{name}.png\">PNG</a>{clip} \
             <a href=\"{name}.chord\">score</a></figcaption></figure>\n\
             <div><h2>{name}</h2>\n<p>{about}</p>\n<pre>{}</pre></div>\n</section>\n",
            escaped(source.trim_end())
        );
    }
    page.push_str("</main>\n</html>\n");
    page
}

fn escaped(text: &str) -> String {
    text.replace('&', "&amp;").replace('<', "&lt;")
}

const PAGE_HEAD: &str = r#"<!doctype html>
<html lang="en">
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>The Skerry Kite Loft, drawn with Chordane</title>
<style>
  :root { color-scheme: light; --ink: #20303c; --paper: #fbf8f1; --line: #d8cfbd; }
  * { box-sizing: border-box; }
  body { margin: 0; background: var(--paper); color: var(--ink); font: 16px/1.5 system-ui, sans-serif; }
  header, main { max-width: 1200px; margin: 0 auto; padding: 24px; }
  header { padding-bottom: 0; }
  h1 { margin: 0; font-size: 28px; }
  h2 { margin: 0; font-size: 20px; }
  p { margin: 4px 0 12px; }
  section { display: grid; grid-template-columns: minmax(0, 5fr) minmax(0, 6fr); gap: 24px; padding: 24px 0;
    border-top: 1px solid var(--line); }
  figure { margin: 0; }
  img { display: block; width: 100%; height: auto; border: 1px solid var(--line); }
  figcaption { padding-top: 6px; font-size: 14px; }
  a { color: #8a3524; }
  pre { margin: 0; padding: 12px; white-space: pre-wrap; overflow-wrap: anywhere; background: #fff; border: 1px solid var(--line);
    font: 12.5px/1.45 ui-monospace, "DejaVu Sans Mono", monospace; }
  @media (max-width: 800px) { section { grid-template-columns: minmax(0, 1fr); } }
</style>
<header>
<h1>The Skerry Kite Loft</h1>
<p>Every picture here is made by the few lines beside it. Change a number, draw it again, and look.</p>
</header>
<main>
"#;
