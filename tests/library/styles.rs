//! Style sheets in documents: which declarations hold, against a slow twin of the recommendation's rules, and what is told of the rest.

use chordane::prelude::*;
use chordane::read::SvgReading;
use chordane::scene::Placed;
use proptest::prelude::*;

fn read(body: &str) -> SvgReading {
    let text = format!("<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"90\" height=\"90\">{body}</svg>");
    Sheet::read_svg(text.as_bytes()).unwrap()
}

/// The fills of the document's shapes, in turn.
fn fills(body: &str) -> Vec<String> {
    let reading = read(body);
    assert_eq!(reading.notes, [], "{body}");
    let text = |placed: Placed<'_>| match placed.fill() {
        Some(Paint::Solid(colour)) => colour.to_string(),
        other => format!("{other:?}"),
    };
    reading.sheet.items().map(text).collect()
}

const RED: &str = "#f00";
const GREEN: &str = "#008000";

fn shape(attributes: &str) -> String {
    format!("<path d='M0 0H9V9Z' {attributes}/>")
}

#[test]
fn what_is_more_specific_or_later_or_important_wins() {
    for (rules, attributes) in [
        ("path { fill: green }", "fill='red'"),
        ("* { fill: green }", "fill='red'"),
        ("path { fill: red } .a { fill: green }", "class='a'"),
        (".a { fill: green } path { fill: red }", "class='b a'"),
        (".a.b { fill: green } .a { fill: red }", "class='b a'"),
        ("#x { fill: green } .a.a.a { fill: red }", "id='x' class='a'"),
        ("path { fill: red } path { fill: green }", ""),
        ("svg path { fill: green } path { fill: red }", ""),
        ("svg > path { fill: green } svg g path { fill: red }", ""),
        ("g > path { fill: red } path { fill: green }", ""),
        ("path { fill: green !important } #x { fill: red }", "id='x'"),
        ("path { fill: green ! IMPORTANT } #x { fill: red }", "id='x' style='fill: red'"),
        ("path { fill: red !important }", "style='fill: green !important'"),
        ("path { fill: red }", "style='fill: green'"),
        ("path, , { fill: red } path { fill: green }", ""),
        ("path, g { fill: green }", ""),
        ("[d] { fill: green } path { fill: red }", ""),
        ("[data-k=sail] { fill: green }", "data-k='sail'"),
        ("[data-k~='sail'] { fill: green }", "data-k='kite sail'"),
        ("[data-k|='sail'] { fill: green }", "data-k='sail-2'"),
        ("[data-k^='sa'][data-k$='il'][data-k*='ai'] { fill: green }", "data-k='sail'"),
        ("[data-k^=''] { fill: red } path { fill: green }", "data-k='sail'"),
        (":root > path:nth-child(2) { fill: green }", ""),
        ("path:last-child { fill: green } path:first-child, path:hover { fill: red }", ""),
        ("style + path, style ~ path { fill: green }", ""),
        ("path { FILL: GREEN }", ""),
        ("path { fill: red; fill: tael green; } path { fill: green }", ""),
        ("@media print { path { fill: red } } @media screen, print { path { fill: green } }", ""),
        ("@charset 'utf-8'; @namespace url(kite); path { fill: green }", ""),
        ("<![CDATA[path { fill: green } /* </style> */]]>", ""),
        ("svg &gt; path { fill: green }", ""),
        ("path { fill: gr/**/een } path { fill: red } path { fill: green /* as ever */; }", ""),
        ("path { fill: green", ""),
    ] {
        let body = format!("<style>{rules}</style>{}", shape(attributes));
        let reading = read(&body);
        let first = reading.sheet.items().next().and_then(|item| item.fill().cloned());
        assert_eq!(first, Some(Paint::Solid(Colour::parse("green").unwrap())), "{rules}");
    }
}

#[test]
fn what_is_handed_down_can_be_asked_for() {
    let inside = |around: &str, own: &str| fills(&format!("<g {around}>{}</g>", shape(own)));
    assert_eq!(inside("fill='green'", "style='fill: inherit' fill='red'"), [GREEN]);
    assert_eq!(inside("fill='red'", "style='fill: initial'"), ["#000"]);
    assert_eq!(inside("fill='green'", "fill='unset'"), [GREEN]);
    assert_eq!(inside("color='green'", "fill='currentColor'"), [GREEN]);
    assert_eq!(
        inside("color='green'", "fill='currentColor' color='inherit' style='color: currentColor'"),
        [GREEN]
    );
    // What is not handed down by itself.
    let opacity = |own: &str| {
        let reading = read(&format!("<g opacity='.5'>{}</g>", shape(own)));
        reading.sheet.items().next().map(|item| item.item.style().opacity)
    };
    assert_eq!(
        (opacity("opacity='inherit'"), opacity(""), opacity("opacity='initial'")),
        (Some(0.5), Some(1.0), Some(1.0))
    );
    // A gradient's stops, a pattern and a mask have what the elements around them say, not what is painted.
    let stops =
        "<g color='green'><linearGradient id='s'><stop stop-color='red' class='c'/></linearGradient></g>";
    let painted = format!(
        "<style>.c {{ stop-color: currentColor !important }}</style>{stops}<g color='red'>{}</g>",
        shape("fill='url(#s)'")
    );
    assert_eq!(fills(&painted), [GREEN]);
}

#[test]
fn style_sheets_stand_anywhere_and_mean_what_is_used_too() {
    let used = "<defs><path id='s' class='a' d='M0 0H9V9Z'/></defs><g fill='red'><use href='#s'/></g><style>.a{fill:green}</style>";
    assert_eq!(fills(used), [GREEN]);
    for not_css in ["type='text/plain'", "media='print'"] {
        assert_eq!(
            fills(&format!("<style {not_css}>path{{fill:green}}</style>{}", shape("fill='red'"))),
            [RED]
        );
    }
    let hidden = read(
        "<style>.h { display: none } .v { visibility: hidden }</style><g class='h'><path d='M0 0H9'/></g><path class='v' d='M0 0H9'/>",
    );
    assert_eq!((hidden.sheet.items().count(), hidden.notes.len()), (0, 0));
    let clipped = "<style>.c { clip-path: url(#k) } .k { clip-rule: evenodd }</style><clipPath id='k' class='k'><path d='M0 0H9V9H0Z M1 1H8V8H1Z'/></clipPath>";
    let clip = read(&format!("{clipped}{}", shape("class='c'")));
    let rule =
        clip.sheet.items().next().and_then(|item| Some(item.item.compositing().clip.as_ref()?.fill_rule()));
    assert_eq!(rule, Some(FillRule::EvenOdd));
}

#[test]
fn what_of_style_sheets_is_not_understood_is_told_with_its_line() {
    let told = |body: &str| read(body).notes.iter().map(ToString::to_string).collect::<Vec<_>>();
    let rules = "<style>\n@import url(more.css);\n<!-- two\nlines -->path::before, path:has(a) { fill: red }\n@keyframes flight { from { fill: red } }\n@media (min-width: 3px) { path { fill: red } }\npath { fill: tael; wing: 3;\n nested { fill: red } }\n}</style>\n<path d='M0 0H9V9Z'/>";
    assert_eq!(
        told(rules),
        [
            "line 2: the style sheet url(more.css) is not fetched: left out",
            "line 4: the selector \"path::before\" is not understood: left out",
            "line 4: the selector \"path:has(a)\" is not understood: left out",
            "line 5: \"@keyframes flight\" in a style sheet is not understood: left out",
            "line 6: \"@media (min-width: 3px)\" in a style sheet is not understood: left out",
            "line 8: \"nested { fill: red }\" in a style sheet is not understood: left out",
            "line 9: \"}\" in a style sheet is not understood: left out",
            "line 10: fill=\"tael\" is not understood: left out",
            "line 10: the property wing is not understood: left out",
        ]
    );
    let elsewhere =
        Sheet::read_svg(b"<?xml-stylesheet href='kite.css'?>\n<svg><style media='(color)'>a{}</style></svg>")
            .unwrap();
    let notes: Vec<String> = elsewhere.notes.iter().map(ToString::to_string).collect();
    assert_eq!(
        notes,
        [
            "line 1: a style sheet that lies elsewhere is not fetched: left out",
            "line 2: a style sheet whose `media` has conditions is left out",
        ]
    );
}

#[test]
fn hostile_style_sheets_end_soon() {
    let many = ".a,".repeat(30_000);
    let notes = read(&format!("<style>{many}b{{fill:red}}</style><style>c{{fill:red}}</style>")).notes;
    assert_eq!(notes.len(), 1);
    assert_eq!(notes[0].what, "style sheets with more than 20000 selectors: the rest is left out");
    // Very many ways up, none of which leads there.
    let ways = "g ".repeat(30) + "> a path { fill: red }";
    let deep = format!("{}{}{}", "<g>".repeat(100), shape("fill='green'"), "</g>".repeat(100));
    assert_eq!(fills(&format!("<style>{ways}</style>{deep}")), [GREEN]);
    let long = "g ".repeat(40) + "path { fill: red }";
    assert!(read(&format!("<style>{long}</style>")).notes[0].what.contains("is not understood"));
    let nested = "@media all {".repeat(5000);
    let _ = read(&format!("<style>{nested}</style>"));
    let brackets = format!("path {{ fill: {}", "(".repeat(50_000));
    let _ = read(&format!("<style>{brackets}</style><path style='fill:{}'/>", "[".repeat(50_000)));
    let all = format!("path{{{}}}", "fill:red;".repeat(50_000));
    let stopped = read(&format!("<style>{all}</style>{}", shape("").repeat(1000)));
    assert_eq!(
        stopped.notes[0].what,
        "the style sheets set too many properties in all: from here on they are left out"
    );
}

/// An element of the made-up documents: its name, its classes, and those inside.
#[derive(Clone, Debug)]
struct Made {
    name: &'static str,
    classes: Vec<&'static str>,
    inside: Vec<Made>,
}

fn any_made() -> impl Strategy<Value = Made> {
    let one =
        || (prop::sample::select(vec!["g", "a"]), prop::sample::subsequence(vec!["k", "l", "m"], 0..=2));
    let leaf = prop::sample::subsequence(vec!["k", "l", "m"], 0..=3).prop_map(|classes| Made {
        name: "path",
        classes,
        inside: vec![],
    });
    leaf.prop_recursive(5, 40, 4, move |inner| {
        (one(), prop::collection::vec(inner, 1..4)).prop_map(|((name, classes), inside)| Made {
            name,
            classes,
            inside,
        })
    })
}

impl Made {
    fn text(&self) -> String {
        let inside: String = self.inside.iter().map(Self::text).collect();
        format!("<{} class='{}' d='M0 0H9V9Z'>{inside}</{}>", self.name, self.classes.join(" "), self.name)
    }

    /// The paths of names and classes from the outside to each shape, with the places of each among its siblings.
    fn shapes<'a>(
        &'a self,
        around: &[(&'a Self, &'a [Self], usize)],
        found: &mut Vec<Vec<(&'a Self, &'a [Self], usize)>>,
    ) {
        for (place, made) in self.inside.iter().enumerate() {
            let here: Vec<_> =
                around.iter().copied().chain([(made, self.inside.as_slice(), place)]).collect();
            if made.name == "path" {
                found.push(here);
            } else {
                made.shapes(&here, found);
            }
        }
    }
}

/// A simple selector: a name or `*`, and classes; and how it is joined to the one before.
type Simple = (&'static str, &'static str, Vec<&'static str>);

fn any_rule() -> impl Strategy<Value = (Vec<Simple>, bool)> {
    let simple = (
        prop::sample::select(vec![" ", " > ", " + ", " ~ "]),
        prop::sample::select(vec!["*", "g", "a", "path"]),
        prop::sample::subsequence(vec!["k", "l", "m"], 0..=2),
    );
    (prop::collection::vec(simple, 1..4), prop::bool::weighted(0.2))
}

/// Whether the selectors fit a way from the outside, by trying every place for each of them.
fn fits(way: &[(&Made, &[Made], usize)], selectors: &[Simple]) -> bool {
    let (Some(((made, siblings, place), around)), Some(((joined, name, classes), left))) =
        (way.split_last(), selectors.split_last())
    else {
        return selectors.is_empty();
    };
    let own =
        (*name == "*" || *name == made.name) && classes.iter().all(|class| made.classes.contains(class));
    let beside = |place: usize| {
        let mut other = way.to_vec();
        if let Some(last) = other.last_mut() {
            *last = (&siblings[place], siblings, place);
        }
        fits(&other, left)
    };
    own && (left.is_empty()
        || match *joined {
            " " => (0..=around.len()).any(|end| end > 0 && fits(&around[..end], left)),
            " > " => !around.is_empty() && fits(around, left),
            " + " => *place > 0 && beside(place - 1),
            _ => (0..*place).any(beside),
        })
}

proptest! {
    #![proptest_config(crate::support::cases(200))]

    #[test]
    fn the_rules_that_hold_are_those_of_a_slow_twin(made in any_made(), rules in prop::collection::vec(any_rule(), 0..6)) {
        let whole = Made { name: "svg", classes: vec![], inside: vec![made] };
        let mut css = String::new();
        for (i, (selectors, important)) in rules.iter().enumerate() {
            for (k, (joined, name, classes)) in selectors.iter().enumerate() {
                let classes: String = classes.iter().map(|class| format!(".{class}")).collect();
                css += &format!("{}{name}{classes}", if k == 0 { "" } else { joined });
            }
            css += &format!("{{fill:#0000{:02x}{}}}", i + 1, if *important { "!important" } else { "" });
        }
        let mut ways = Vec::new();
        whole.shapes(&[(&whole, std::slice::from_ref(&whole), 0)], &mut ways);
        let expected: Vec<String> = ways.iter().map(|way| {
            // What is around hands its fill down.
            let winner = |way: &[(&Made, &[Made], usize)]| {
                let weigh = |selectors: &[Simple]| (
                    selectors.iter().map(|simple| simple.2.len()).sum::<usize>(),
                    selectors.iter().filter(|simple| simple.1 != "*").count(),
                );
                let held = rules.iter().enumerate().filter(|(_, (selectors, _))| fits(way, selectors));
                held.max_by_key(|(i, (selectors, important))| (*important, weigh(selectors), *i)).map(|(i, _)| i)
            };
            let nearest = (1..=way.len()).rev().find_map(|end| winner(&way[..end]));
            nearest.map_or("#000".to_owned(), |i| format!("#0000{:02x}", i + 1))
        }).collect();
        let body = format!("{}<style>{css}</style>", whole.inside.iter().map(Made::text).collect::<String>());
        prop_assert_eq!(fills(&body), expected, "{}", body);
    }

    #[test]
    fn any_style_sheet_is_read(parts in prop::collection::vec(prop::sample::select(vec![
        "path", "{", "}", ":", ";", "fill", "red", " ", ">", "+", "~", "[d", "='", "]", "(", ")", "@media ", "screen", "!important", "/*", "*/",
        ",", ".k", "#k", "*", ":nth-child(", "2n", "-1", "\\", "'", "\n", "url(",
    ]), 0..30)) {
        let text = parts.concat().replace('<', "");
        let _ = read(&format!("<style><![CDATA[{text}]]></style><path style=\"{text}\" class='k' d='M0 0H9'/>"));
    }
}
