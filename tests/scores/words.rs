//! Every word against every kind of value: it works, or it says what it wants.

use chordane_score::words::{self, Kind};
use chordane_score::{Limits, Runner, Score, Script};

/// A value of each kind, as a script writes it.
const SAMPLES: &[(&str, &str)] = &[
    ("number", "2.5"),
    ("negative", "-3"),
    ("none", "1/0"),
    ("count", "4"),
    ("point", "pt(3, 4)"),
    ("pair", "[3, 4]"),
    ("angle", "deg(40)"),
    ("text", "\"teal\""),
    ("pen", "start([1, 1]).line([5, 5])"),
    ("path", "circle([5, 5], 3)"),
    ("item", "circle([5, 5], 3).fill(\"red\")"),
    ("style", "style().fill(\"red\")"),
    ("group", "group().add(circle([5, 5], 3))"),
    ("sheet", "sheet(9, 9)"),
    ("empty list", "[]"),
    ("points", "[[1, 1], [2, 2]]"),
    ("nothing", "()"),
    ("map", "#{a: 1}"),
    ("function", "|x| x"),
    ("extent", "part(0.5) + 2"),
    ("vertex", "corner([1, 2])"),
    ("cell", "cell([0, 0], 40, 30)"),
    ("triangle", "triangle_by_legs(4, 3)"),
    ("curve", "through([[1, 2], [5, 6], [7, 1]])"),
    ("dice", "dice(\"tail\")"),
    ("wheels", "wheel(5, 1, deg(0))"),
    ("stamp", "stamp(circle([0, 0], 3))"),
    ("keys", "keys([[0, 1], [1, 3]])"),
    ("pose", "pose([1, 2], deg(3), 1)"),
    ("timeline", "timeline().then(\"rise\", 1)"),
    ("truth", "true"),
    ("range", "0..3"),
    ("range with its end", "0..=3"),
];

fn run(expression: &str) -> Result<(), String> {
    let source = format!("let made = {expression};\nsheet(9, 9)");
    let script =
        Script::read("kite.chord", source, Limits::default()).map_err(|mistake| mistake.to_string())?;
    script.sheet().map(drop).map_err(|mistake| {
        assert_eq!(mistake.line(), Some(1), "{expression}: {mistake}");
        mistake.to_string()
    })
}

/// A value that a word takes for a kind.
fn fitting(kind: Kind) -> &'static str {
    match kind {
        Kind::Number => "0.5",
        Kind::Count => "4",
        Kind::Point => "pt(3, 4)",
        Kind::Angle => "deg(40)",
        Kind::Text | Kind::Colour | Kind::Paint => "\"teal\"",
        Kind::Gradient => "linear_gradient([0, 0], [9, 0]).colours([\"teal\", \"red\"])",
        Kind::Pen => "start([1, 1]).line([5, 5])",
        Kind::Path | Kind::Node => "circle([5, 5], 3)",
        Kind::Item => "circle([5, 5], 3).fill(\"red\")",
        Kind::Style => "style().fill(\"red\")",
        Kind::Group => "group().add(circle([5, 5], 3))",
        Kind::Sheet => "sheet(9, 9)",
        Kind::Nodes => "[circle([5, 5], 3)]",
        Kind::Items => "[circle([5, 5], 3).fill(\"red\")]",
        Kind::Points => "[[1, 1], [2, 2]]",
        Kind::Numbers => "[1, 2]",
        Kind::Angles => "[deg(1)]",
        Kind::Vertex => "corner([1, 2])",
        Kind::Vertices => "[[1, 2], corner([5, 6]), [7, 1]]",
        Kind::Cell => "cell([0, 0], 40, 30)",
        Kind::Cells => "cell([0, 0], 40, 30).grid(2, 2)",
        Kind::Extent => "part(0.5) + 2",
        Kind::Extents => "[part(0.2), 5]",
        Kind::Triangle => "triangle_by_legs(4, 3)",
        Kind::Dice => "dice(\"tail\")",
        Kind::List | Kind::Value => "[1, 2]",
        Kind::Wheels => "wheel(5, 1, deg(0))",
        Kind::Picture => "picture([\"gold\", \"teal\"], 2)",
        Kind::Pattern => "pattern(cell([0, 0], 4, 4), circle([2, 2], 1))",
        Kind::Stamp => "stamp(circle([0, 0], 3))",
        Kind::Moving => "4",
        Kind::Keys => "keys([[0, 1], [1, 3]])",
        Kind::Pose => "pose([1, 2], deg(3), 1)",
        Kind::Timeline => "timeline().then(\"rise\", 1)",
        Kind::Function => "|x| x",
        Kind::Flag => "true",
        Kind::Texts | Kind::Colours => "[\"teal\", \"red\"]",
        Kind::Curve => "through([[1, 2], [5, 6], [7, 1]])",
        other => panic!("no sample for {other:?}"),
    }
}

#[test]
fn a_word_given_the_wrong_kind_says_which_it_wants() {
    // One sample in three for each place, or all of them where `PROPTEST_CASES` asks for a longer run.
    let every = if std::env::var_os("PROPTEST_CASES").is_some() { 1 } else { 3 };
    let (mut refused, mut places) = (0, 0);
    for word in words::all() {
        for at in 0..word.takes.len() {
            places += 1;
            for (what, sample) in SAMPLES.iter().skip(places % every).step_by(every) {
                let mut values: Vec<&str> = word.takes.iter().map(|(_, kind)| fitting(*kind)).collect();
                values[at] = sample;
                let on = word.on.first().map_or(String::new(), |kind| format!("({}).", fitting(*kind)));
                let call = format!("{on}{}({})", word.name, values.join(", "));
                if let Err(told) = run(&call) {
                    refused += 1;
                    let names = [
                        "Dynamic",
                        "::",
                        "i64",
                        "f64",
                        "ImmutableString",
                        "Array",
                        "Range",
                        "range=",
                        "FnPtr",
                        "Map ",
                    ];
                    assert!(!names.iter().any(|name| told.contains(name)), "{call}: {told}");
                    let (name, _) = word.takes[at];
                    let wants = told.contains(&format!("`{}` wants", word.name));
                    // A word with several forms speaks of the first that it stands on.
                    let one_form = words::named(word.name).count() == 1;
                    let names_it = told.contains(&format!("for its {name}"));
                    assert!(!wants || !one_form || names_it, "{what}: {call}: {told}");
                }
            }
        }
    }
    assert!(refused > 500, "{refused}");
}

/// What a word says that is called on a map: what it is called on; where another word of its name takes as many values
/// alone, what that one wants.
#[test]
fn a_word_called_on_the_wrong_kind_says_so() {
    for word in words::all().filter(|word| !word.on.is_empty()) {
        let values: Vec<&str> = word.takes.iter().map(|(_, kind)| fitting(*kind)).collect();
        let call = format!("(#{{a: 1}}).{}({})", word.name, values.join(", "));
        let told = run(&call).unwrap_err();
        let alone = words::named(word.name)
            .find(|other| other.on.is_empty() && other.takes.len() == values.len() + 1);
        let want = match alone {
            Some(other) => {
                let (name, kind) = other.takes[0];
                format!("`{}` wants {} for its {name}, and was given a map", word.name, kind.described())
            }
            None => format!("`{}` is called on ", word.name),
        };
        assert!(told.starts_with(&want), "{call}: {told}");
        assert!(told.ends_with("a map"), "{call}: {told}");
    }
}

#[test]
fn the_table_is_well_formed() {
    for section in words::sections() {
        assert!(!section.words.is_empty(), "{}", section.title);
        for word in &section.words {
            assert!(word.about.ends_with('.') && !word.about.contains('|'), "{}: {}", word.name, word.about);
            assert!(word.name.chars().all(|c| c.is_ascii_lowercase() || c == '_'), "{}", word.name);
            assert!(word.form().contains(word.name));
        }
    }
    // No two words can be called in the same way on the same kinds.
    let all: Vec<_> = words::all().collect();
    for (i, a) in all.iter().enumerate() {
        for b in &all[i + 1..] {
            let same_takes =
                a.takes.len() == b.takes.len() && a.takes.iter().zip(&b.takes).all(|(p, q)| p.1 == q.1);
            let same_on = a.on.is_empty() && b.on.is_empty() || a.on.iter().any(|kind| b.on.contains(kind));
            assert!(!(a.name == b.name && same_takes && same_on), "{}", a.form());
        }
    }
}

/// A script and the same lines in Rust give the same file.
#[test]
fn a_score_and_its_rust_twin_give_the_same_svg() {
    use chordane::prelude::*;
    let script = r##"
        let canvas = style().fill("#2f6f73").stroke("#20303c", 2).join("round").dash([6, 3]).dash_offset(1.5);
        let sail = start(pt(0, -40)).line_by([30, 30]).ray(deg(120), 50).turn(deg(45)).ahead(20)
            .quad([-10, 40], [-20, 20]).cubic([-40, 20], [-40, -10], [-30, -20]).arc_about([-10, -20], turns(1/4)).close()
            .with_hole(star([0, 0], 5, 8, 4)).and(rounded_rectangle([40, 40], 20, 10, [1, 2, 3, 4]));
        let fan = between(deg(-30), deg(30), 3).map(|a| open([[0, 0], polar(a, 90)]).stroke("teal", 1).cap("square"));
        let kite = group().add(sail.styled(canvas)).add_all(fan).rotated(deg(10)).moved([5, 6]).opacity(0.5).named("kite");
        sheet(200, 150).centred().ground("white").add(kite)
            .add(polygon([0, 0], 6, 20).scaled_by([2, 1]).sheared(deg(10), deg(0)).fill("rgb(0 0 0 / 20%)").fill_rule("evenodd"))
            .add(ellipse([50, 50], 20, 10).rotated_about([50, 50], rad(PI / 6)).scaled(0.5).stroke("red", 1).mitre_limit(2))
    "##;
    let canvas =
        style().fill("#2f6f73").stroke("#20303c", 2.0).join("round").dash([6.0, 3.0]).dash_offset(1.5);
    let sail = start(pt(0.0, -40.0))
        .line_by((30.0, 30.0))
        .ray(deg(120.0), 50.0)
        .turn(deg(45.0))
        .ahead(20.0)
        .quad((-10.0, 40.0), (-20.0, 20.0))
        .cubic((-40.0, 20.0), (-40.0, -10.0), (-30.0, -20.0))
        .arc_about((-10.0, -20.0), turns(1.0 / 4.0))
        .close()
        .with_hole(star((0.0, 0.0), 5, 8.0, 4.0))
        .and(&rounded_rectangle((40.0, 40.0), 20.0, 10.0, [1.0, 2.0, 3.0, 4.0]));
    let fan = between(deg(-30.0), deg(30.0), 3)
        .map(|a| Path::open([pt(0.0, 0.0), polar(a, 90.0)]).stroke("teal", 1.0).cap("square"));
    let kite = group()
        .add(sail.styled(&canvas))
        .add_all(fan)
        .rotated(deg(10.0))
        .moved((5.0, 6.0))
        .opacity(0.5)
        .named("kite");
    let hexagon = polygon((0.0, 0.0), 6, 20.0).scaled_by((2.0, 1.0)).sheared(deg(10.0), deg(0.0));
    let twin = sheet(200.0, 150.0)
        .centred()
        .ground("white")
        .add(kite)
        .add(hexagon.fill("rgb(0 0 0 / 20%)").fill_rule("evenodd"))
        .add(
            ellipse((50.0, 50.0), 20.0, 10.0)
                .rotated_about((50.0, 50.0), rad(std::f64::consts::PI / 6.0))
                .scaled(0.5)
                .stroke("red", 1.0)
                .mitre_limit(2.0),
        );
    let made = Script::read("kite.chord", script, Limits::default()).unwrap().sheet().unwrap();
    assert_eq!(made.svg().unwrap(), twin.svg().unwrap());
    assert_eq!(made.pixels().unwrap(), twin.pixels().unwrap());
}

/// What a word's example draws looks as it is meant to.
#[test]
fn every_example_is_sound() {
    let mut checked = 0;
    for word in words::all() {
        let (before, last) = word.example.rsplit_once('\n').unwrap_or(("", word.example));
        let lined = format!("sheet(1000, 1000).centred().add(({last}).stroke(\"black\", 1))");
        let plain = format!("sheet(1000, 1000).centred().add({last})");
        let drawn = match word.gives {
            Kind::Path => vec![lined],
            Kind::Node => vec![lined, plain],
            Kind::Item | Kind::Group => vec![plain],
            Kind::Sheet => vec![last.to_owned()],
            _ => continue,
        };
        let run = |drawn: &String| {
            let runner =
                Runner::read("example.chord", format!("{before}\n{drawn}"), Limits::default()).ok()?;
            runner.run(&super::support::with_kite()).into_sheet().ok()
        };
        // Styles and pens are given by words of these kinds too, and cannot be drawn by themselves.
        let Some(sheet) = drawn.iter().find_map(run) else { continue };
        let found = sheet.check().unwrap().findings;
        let said: Vec<String> =
            found.iter().map(|finding| format!("{}: {}", finding.code, finding.message)).collect();
        assert_eq!(said, [] as [String; 0], "{}: {}", word.form(), word.example);
        checked += 1;
    }
    assert!(checked > 130, "{checked}");
}
