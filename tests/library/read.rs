//! SVG documents in: what they mean, and what becomes of those that are broken or hostile.

use std::sync::Arc;
use std::sync::atomic::{AtomicUsize, Ordering};

use crate::support::any_path;
use chordane::ground::{Budget, Stopped};
use chordane::prelude::*;
use chordane::read::{ReadError, SvgReading};
use chordane::sheet::Node;
use proptest::prelude::*;

fn read(body: &str) -> SvgReading {
    let text = format!(
        "<svg xmlns='http://www.w3.org/2000/svg' xmlns:xlink='http://www.w3.org/1999/xlink' width='100' height='80'>{body}</svg>"
    );
    Sheet::read_svg(text.as_bytes()).unwrap()
}

/// The items of a document without notes.
fn items(body: &str) -> Vec<Item> {
    let reading = read(body);
    assert_eq!(reading.notes, [], "{body}");
    let item = |node: &Node| match node {
        Node::Item(item) => (**item).clone(),
        _ => panic!("more than an item in {body}"),
    };
    reading.sheet.nodes().iter().map(item).collect()
}

/// The data of the one shape, where it stands on the sheet.
fn data(body: &str) -> String {
    let all = items(body);
    assert_eq!(all.len(), 1, "{body}");
    all[0].path().transformed(&all[0].placement().transform).data()
}

fn notes(body: &str) -> Vec<String> {
    read(body).notes.iter().map(ToString::to_string).collect()
}

#[test]
fn basic_shapes_begin_and_run_as_the_recommendation_says() {
    assert_eq!(data("<rect x='1' y='2' width='30' height='10'/>"), "M1 2H31V12H1Z");
    let round = data("<rect width='30' height='10' rx='4' ry='3'/>");
    assert_eq!(round, "M4 0H26A4 3 0 0 1 30 3V7A4 3 0 0 1 26 10H4A4 3 0 0 1 0 7V3A4 3 0 0 1 4 0Z");
    // One radius stands for both, and neither goes past the middle.
    assert!(data("<rect width='30' height='10' rx='40'/>").starts_with("M15 0"));
    assert!(data("<circle cx='20' cy='10' r='5'/>").starts_with("M25 10A5 5 0 0 1 20 15"));
    assert!(data("<ellipse cx='20' cy='10' rx='5' ry='2'/>").starts_with("M25 10A5 2 0 0 1 20 12"));
    assert_eq!(data("<line x1='1' x2='5' y2='9' stroke='red'/>"), "M1 0 5 9");
    assert_eq!(data("<polyline points='0,0 10 0 10,10'/>"), "M0 0H10V10");
    assert_eq!(data("<polygon points='0 0,10 0,10 10'/>"), "M0 0H10V10Z");
    assert_eq!(data("<path d='M0 0h10v10z'/>"), "M0 0H10V10Z");
    // Shapes of no size are not drawn, and that is not a complaint.
    for empty in
        ["<rect width='30'/>", "<circle/>", "<ellipse rx='0' ry='5'/>", "<path/>", "<polygon points=''/>"]
    {
        assert!(items(empty).is_empty(), "{empty}");
    }
    assert_eq!(data("<circle cx='50%' cy='50%' r='10%'/>").split('A').next(), Some("M59.05538513813742 40"));
}

/// A sheet in pixels.
fn pixels(sheet: &Sheet) -> Vec<u8> {
    sheet.pixels().unwrap().as_slice().as_flattened().to_vec()
}

#[test]
fn clips_are_read_back_as_they_were_written() {
    let vent = star((0.0, 0.0), 5, 20.0, 9.0).rotated(deg(10.0));
    let both = circle((40.0, 40.0), 30.0).and(&circle((40.0, 40.0), 12.0));
    let sail = group()
        .add(rectangle((10.0, 10.0), 60.0, 60.0).fill("teal"))
        .add(
            group()
                .add(circle((0.0, 0.0), 25.0).fill("orange"))
                .clipped(vent)
                .moved((40.0, 40.0))
                .opacity(0.6),
        )
        .clipped(both.with_fill_rule(FillRule::EvenOdd));
    let own = sheet(100.0, 80.0).add(sail);
    let reading = Sheet::read_svg(own.svg().unwrap().as_bytes()).unwrap();
    assert_eq!(reading.notes, []);
    assert_eq!(pixels(&reading.sheet), pixels(&own));
}

#[test]
fn a_clip_is_what_its_shapes_show_together() {
    let clips = "<clipPath id='two'><circle cx='30' cy='40' r='20'/><rect x='30' y='30' width='40' height='20'/></clipPath>";
    let clipped = |attribute: &str| {
        read(&format!("<defs>{clips}</defs><rect width='100' height='80' fill='teal' {attribute}/>"))
    };
    let shown = circle((30.0, 40.0), 20.0).union(rectangle((30.0, 30.0), 40.0, 20.0));
    let expected = pixels(&sheet(100.0, 80.0).add(shown.clone().fill("teal")));
    for attribute in ["clip-path='url(#two)'", "style='clip-path: url(\"#two\")'"] {
        let reading = clipped(attribute);
        assert_eq!(reading.notes, [], "{attribute}");
        let worst = pixels(&reading.sheet).iter().zip(&expected).map(|(a, b)| a.abs_diff(*b)).max().unwrap();
        assert!(worst <= 1, "{attribute}: {worst}");
    }
    // A clip moves with what it clips.
    let moved = clipped("clip-path='url(#two)' transform='translate(9 4)'");
    let shown = pixels(&sheet(100.0, 80.0).add(shown.moved((9.0, 4.0)).fill("teal")));
    let worst = pixels(&moved.sheet).iter().zip(&shown).map(|(a, b)| a.abs_diff(*b)).max().unwrap();
    assert!(worst <= 1, "{worst}");
    // What cannot be is said, and clips nothing; an empty clip shows nothing.
    let told = |body: &str| notes(body).join("; ");
    assert_eq!(
        told("<rect width='9' height='9' clip-path='url(#none)'/>"),
        "line 1: a clip-path that is not in the document is left out"
    );
    assert_eq!(
        told("<g id='g'/><rect width='9' height='9' clip-path='url(#g)'/>"),
        "line 1: a <g> as clip-path is left out: it is no <clipPath>"
    );
    assert_eq!(
        told(
            "<clipPath id='c' clip-path='url(#c)'><rect width='9' height='9'/></clipPath><rect width='9' height='9' clip-path='url(#c)'/>"
        ),
        "line 1: a clip-path that is clipped by itself, or through too many others, is left out"
    );
    assert_eq!(
        told("<clipPath id='c'><text>7</text></clipPath><rect width='9' height='9' clip-path='url(#c)'/>"),
        "line 1: a clip-path with a <text> in it is left out"
    );
    let empty = read("<clipPath id='c'/><rect width='99' height='79' clip-path='url(#c)'/>");
    assert!(pixels(&empty.sheet).iter().all(|byte| *byte == 0));
}

#[test]
fn paints_are_inherited_and_style_goes_over_attributes() {
    let style = |body: &str| items(body)[0].style().clone();
    let hex = |colour: Option<Colour>| colour.map(Colour::hex);
    assert_eq!(
        hex(style("<rect width='9' height='9'/>").fill.as_ref().and_then(Paint::colour)),
        Some("#000".into())
    );
    let handed = style(
        "<g fill='teal' stroke='red' stroke-width='3'><g stroke='none'><rect width='9' height='9'/></g></g>",
    );
    assert_eq!(
        (hex(handed.fill.as_ref().and_then(Paint::colour)), handed.stroke.as_ref()),
        (Some("#008080".into()), None)
    );
    let over = style(
        "<rect width='9' height='9' fill='red' style='fill: blue !important; stroke:currentColor' color='lime'/>",
    );
    assert_eq!(
        (hex(over.fill.as_ref().and_then(Paint::colour)), hex(over.stroke.as_ref().and_then(Paint::colour))),
        (Some("#00f".into()), Some("#0f0".into()))
    );
    let faint = style("<rect width='9' height='9' fill-opacity='50%' opacity='.25'/>");
    assert_eq!(hex(faint.fill.as_ref().and_then(Paint::colour)), Some("#00000080".into()));
    let drawn = |body: &str| read(body).sheet.svg().unwrap();
    assert!(
        drawn("<path d='M0 0h9' fill='none' stroke='red' stroke-dasharray='1,2 3' stroke-dashoffset='2'/>")
            .contains("stroke-dasharray=\"1 2 3 1 2 3\" stroke-dashoffset=\"2\"")
    );
    let lines = drawn(
        "<path d='M0 0h9v9' stroke='red' stroke-linecap='round' stroke-linejoin='bevel' fill-rule='evenodd' stroke-miterlimit='9'/>",
    );
    for part in ["stroke-linecap=\"round\"", "stroke-linejoin=\"bevel\"", "fill-rule=\"evenodd\""] {
        assert!(lines.contains(part), "{part} in {lines}");
    }
    // What is meant to be invisible stays so: no draft is drawn for it.
    assert!(drawn("<path d='M0 0h9' fill='none'/>").contains("fill-opacity=\"0\""));
    for hidden in [
        "<g display='none'><rect width='9' height='9'/></g>",
        "<rect width='9' height='9' visibility='hidden'/>",
    ] {
        assert!(items(hidden).is_empty(), "{hidden}");
    }
}

#[test]
fn groups_transforms_and_use_put_shapes_in_their_places() {
    let side = "<path id='a' d='M0 0h1'/>";
    assert_eq!(
        data("<g transform='translate(10 5)'><path transform='scale(2)' d='M0 0h1'/></g>"),
        "M10 5H12"
    );
    assert_eq!(
        data(&format!("<defs>{side}</defs><use href='#a' x='3' y='4' transform='scale(2)'/>")),
        "M6 8H8"
    );
    let symbol = "<symbol id='s' viewBox='0 0 10 10'><path d='M0 0h10'/></symbol>";
    assert_eq!(data(&format!("{symbol}<use xlink:href='#s' width='20' height='40'/>")), "M0 10H20");
    assert_eq!(
        data("<svg x='10' y='10' width='20' height='20' viewBox='0 0 1 1'><path d='M0 0h1'/></svg>"),
        "M10 10H30"
    );
    let group =
        read("<g opacity='.5' id='pair'><rect width='9' height='9'/><rect width='5' height='5'/></g>");
    assert!(matches!(group.sheet.nodes(), [Node::Group(both)] if both.nodes().len() == 2));
    assert_eq!(items("<rect id='sail' width='9' height='9'/>")[0].name(), Some("sail"));
    let second_line = items("\n<rect width='9' height='9'/>");
    assert_eq!(second_line[0].line(), Some(2));
}

#[test]
fn the_size_of_the_sheet_is_that_of_the_document() {
    let sheet = |attributes: &str| Sheet::read_svg(format!("<svg {attributes}/>").as_bytes()).unwrap().sheet;
    assert_eq!(sheet("width='40' height='30'").size, pt(40.0, 30.0));
    assert_eq!(sheet("viewBox='5 5 40 30'").size, pt(40.0, 30.0));
    assert_eq!(sheet("viewBox='0 0 40 30' width='80'").size, pt(80.0, 60.0));
    assert_eq!(sheet("").size, pt(300.0, 150.0));
    let paper = sheet("width='210mm' height='29.7cm'");
    assert_eq!((paper.size.round(), paper.unit), (pt(210.0, 297.0), Unit::Mm));
    assert_eq!(sheet("width='50%' height='50%' viewBox='0 0 40 30'").size, pt(20.0, 15.0));
    assert_eq!(sheet("width='-4' height='x' viewBox='0 0 40 30'").size, pt(40.0, 30.0));
}

#[test]
fn what_is_not_understood_is_noted_once_for_each_kind() {
    assert_eq!(
        notes("<text>sail</text>\n<text>vent</text><image/>"),
        [
            "line 1: the element <text> is not understood: left out (and once more)",
            "line 2: the image \"\" is not in the document itself and is not fetched: left out",
        ]
    );
    assert_eq!(
        notes("<rect width='9' height='9' filter='url(#f)'/>"),
        ["line 1: the filter \"f\" is not understood: left out"]
    );
    assert_eq!(
        notes("<rect width='9' height='9' fill='tael'/>"),
        ["line 1: fill=\"tael\" is not understood: left out"]
    );
    assert_eq!(
        notes("<rect width='9 ells' height='9'/>"),
        ["line 1: <rect>: width=\"9 ells\": drawn as far as it is understood"]
    );
    assert!(notes("<path d='M0 0L5 5 X'/>")[0].contains("<path>: path data:"));
    // As far as it was understood, it is drawn.
    assert_eq!(read("<path d='M0 0L5 5 X'/>").sheet.nodes().len(), 1);
}

#[test]
fn broken_documents_say_where() {
    let told = |text: &[u8]| Sheet::read_svg(text).unwrap_err().to_string();
    assert_eq!(
        told(b"<svg>\n<g>"),
        "line 2: this is not well-formed XML: the document ends before all elements are closed"
    );
    assert_eq!(
        told(b"<svg>\n<g></svg>"),
        "line 2: this is not well-formed XML: </svg> is not the end of <g>"
    );
    assert_eq!(
        told(b"<svg>\n<use xlink:href='#a'/></svg>"),
        "line 2: this is not well-formed XML: the prefix xlink is not declared; use href instead of xlink:href"
    );
    assert_eq!(
        told(b"<svg>\n<k:kite/></svg>"),
        "line 2: this is not well-formed XML: the prefix k is not declared; add xmlns:k=\"..\" to the svg element"
    );
    assert_eq!(
        told(b"<svg>\n&sail;</svg>"),
        "line 2: this is not well-formed XML: the entity &sail; is not declared; use the character itself"
    );
    assert_eq!(
        told(b"<svg a='1' a='2'/>"),
        "line 1: this is not well-formed XML: attribute 'a' is already defined"
    );
    assert!(told(b"<svg><path d=\"M0 0").starts_with("line 1: this is not well-formed XML: "));
    let commands = told(b"<svg><g\x1b[31m></svg>");
    assert!(commands.ends_with("expected a whitespace not '\u{241b}'"), "{commands}");
    let endless = told(format!("<svg><g></{}>", "kite".repeat(10_000)).as_bytes());
    assert!(endless.len() < 300 && endless.ends_with(".."), "{endless}");
    assert_eq!(told(b"<html/>"), "there is no <svg> element; give an SVG document");
    assert_eq!(told(b""), "there is no <svg> element; give an SVG document");
    assert_eq!(told(b"<svg>\xe9</svg>"), "byte 5 is not UTF-8; save the document as UTF-8 text");
    assert!(told(b"\xff\xfe<\0s\0v\0g\0").starts_with("byte 0 is not UTF-8"));
    assert!(Sheet::read_svg(b"\xef\xbb\xbf<svg/>").is_ok());
    let deep = format!("<svg>\n{}{}</svg>", "<g>".repeat(5000), "</g>".repeat(5000));
    assert_eq!(
        told(deep.as_bytes()),
        "line 2: elements lie more than 128 deep inside one another; flatten the groups"
    );
}

#[test]
fn hostile_documents_end_soon() {
    assert_eq!(notes("<g id='a'><use href='#a'/></g>").len(), 1);
    assert!(
        notes("<g id='a'><use href='#b'/></g><g id='b'><use href='#a'/></g>")[0].contains("inside itself")
    );
    assert!(notes("<use href='#gone'/>")[0].contains("not in the document"));
    // Ten uses of ten uses of ten uses: billions of shapes in a few lines.
    let levels: String = (0..12)
        .map(|i| format!("<g id='l{}'>{}</g>", i + 1, format!("<use href='#l{i}'/>").repeat(10)))
        .collect();
    let bomb =
        format!("<svg><defs><rect id='l0' width='1' height='1'/>{levels}</defs><use href='#l12'/></svg>");
    assert!(matches!(Sheet::read_svg(bomb.as_bytes()), Err(ReadError::TooMany { .. })));
    // Each use leads deeper, and each is nested as deep as can be.
    let nest = |i: usize| {
        format!("<g id='n{}'>{}<use href='#n{i}'/>{}</g>", i + 1, "<g>".repeat(100), "</g>".repeat(100))
    };
    let nests: String = (0..30).map(nest).collect();
    let deep = format!("<svg>{nests}<use href='#n30'/></svg>");
    assert!(matches!(Sheet::read_svg(deep.as_bytes()), Err(ReadError::TooDeep { .. })));
    // Entities that refer to one another, and to themselves.
    let entities = |declared: &str| {
        let text = format!("<!DOCTYPE svg [{declared}]><svg><rect fill='&b;' width='9' height='9'/></svg>");
        Sheet::read_svg(text.as_bytes())
    };
    let reading = entities("<!ENTITY a 'te'><!ENTITY b '&a;al'>").unwrap();
    assert_eq!(reading.notes, []);
    assert!(matches!(entities("<!ENTITY b '&b;'>"), Err(ReadError::NotXml { .. })));
    let many: String =
        (0..9).map(|k| format!("<!ENTITY e{} '{}'>", k + 1, format!("&e{k};").repeat(10))).collect();
    let billions = entities(&format!("<!ENTITY e0 'teal'>{many}<!ENTITY b '&e9;'>")).unwrap_err();
    assert!(matches!(billions, ReadError::Entities { .. }), "{billions}");
    // Every prefix of a document is read or refused.
    let whole = reading.sheet.svg().unwrap()
        + "<svg viewBox='0 0 9 9'><path style='fill:red;x' d='M0 0A1 1 0 0 1 5 5z'/></svg>";
    for end in 0..whole.len() {
        let _ = Sheet::read_svg(&whole.as_bytes()[..end]);
    }
}

/// A character that XML cannot hold is written as U+FFFD, and refused in a document that is read.
#[test]
fn characters_that_no_document_can_hold() {
    let odd = "sail\u{1}\u{ffff}\u{b}\u{1f}\u{fffe} é\t🪁";
    let item = circle((5.0, 5.0), 3.0).fill("teal").named(odd);
    let svg = sheet(9.0, 9.0).title(odd).description(odd).metadata(odd).add(item).svg().unwrap();
    assert!(svg.contains("<title>sail\u{fffd}\u{fffd}\u{fffd}\u{fffd}\u{fffd} é\t🪁</title>"), "{svg}");
    assert!(svg.chars().all(|c| c == '\n' || c == '\t' || (' '..'\u{fffe}').contains(&c) || c > '\u{ffff}'));
    assert!(Sheet::read_svg(svg.as_bytes()).unwrap().notes.is_empty());
    for c in ['\u{1}', '\u{ffff}'] {
        let error = Sheet::read_svg(format!("<svg>\n<title>a{c}</title></svg>").as_bytes()).unwrap_err();
        let told = format!(
            "line 2: this is not well-formed XML: the character U+{:04X} cannot stand in a document",
            c as u32
        );
        assert!(error.to_string().contains(&told), "{error}");
    }
}

#[test]
fn numbers_past_all_bounds_are_noted_or_left_out() {
    for body in [
        "<rect width='1e400' height='9'/>",
        "<circle r='1e308' transform='scale(1e300)'/>",
        "<path d='M0 0L1e308 1e308 -1e308 1e308z' transform='matrix(1e200 0 0 1e200 0 0)'/>",
        "<rect width='9' height='9' stroke-width='1e308' stroke='red'/>",
        "<svg viewBox='0 0 1e-300 1e-300'><rect width='9' height='9'/></svg>",
    ] {
        let reading = read(body);
        // Drawing it gives a picture or a fault, never a panic.
        let _ = (reading.sheet.svg(), reading.sheet.pixels());
    }
}

proptest! {
    #![proptest_config(crate::support::cases(60))]

    /// What is written and read again looks the same and is written the same.
    #[test]
    fn there_and_back(path in any_path(90.0), centred in any::<bool>(), angle in -180.0..180.0_f64) {
        let item = path.clone().fill("#c8553d80").stroke("teal", 2.5).join("round").cap("square");
        let mut made = sheet(120.0, 90.0).add(item.rotated(deg(angle))).add(path.stroke("black", 1.0).dash([4.0, 2.0]).opacity(0.5));
        if centred {
            made = made.centred();
        }
        let text = made.svg().unwrap();
        let reading = Sheet::read_svg(text.as_bytes()).unwrap();
        prop_assert_eq!(&reading.notes, &[]);
        prop_assert_eq!(reading.sheet.svg().unwrap(), text);
    }

    #[test]
    fn any_bytes_are_read_or_refused(bytes in prop::collection::vec(any::<u8>(), 0..200)) {
        let _ = Sheet::read_svg(&bytes);
    }

    #[test]
    fn any_markup_is_read_or_refused(parts in prop::collection::vec(prop::sample::select(vec![
        "<svg>", "</svg>", "<g ", "<g>", "</g>", "/>", ">", "<use href='#a'", " id='a'", " transform='rotate(", "9)'", " d='M0 0",
        "L9 9", "'", "<path", " style='fill:", "url(#a)", ";", "stroke:red", "<defs>", "</defs>", "<!--", "-->", "&a;", "viewBox='0 0 9 9'",
    ]), 0..30)) {
        let text = format!("<svg>{}</svg>", parts.concat());
        if let Ok(reading) = Sheet::read_svg(text.as_bytes()) {
            let _ = reading.sheet.svg();
        }
    }
}

#[test]
fn bones_of_a_document_are_in_its_own_units() {
    let shape = "<path d='M10 10H80L40 60Z' fill='teal'/>";
    let read = |attributes: &str| {
        let text = format!("<svg xmlns='http://www.w3.org/2000/svg' {attributes}>{shape}</svg>");
        Sheet::read_svg(text.as_bytes()).unwrap().sheet
    };
    let drawn = |sheet: &Sheet| {
        let bones = sheet.bones(&BonesOptions::default().size(800, 640)).unwrap();
        bones.pixels_with(&WriteOptions::sized(800, 640)).unwrap().as_slice().as_flattened().to_vec()
    };
    let apart = |a: &[u8], b: &[u8]| a.iter().zip(b).filter(|(a, b)| a.abs_diff(**b) > 2).count();
    // Shown five times as large, and in millimetres, a document has the same grid, numbers and sizes.
    let plain = drawn(&read("width='100' height='80'"));
    for same in
        ["width='500' height='400' viewBox='0 0 100 80'", "width='20mm' height='16mm' viewBox='0 0 100 80'"]
    {
        let there = drawn(&read(same));
        assert!(apart(&plain, &there) < 20, "{same}: {}", apart(&plain, &there));
    }
    let from_elsewhere = drawn(&read("width='100' height='80' viewBox='-7 0 100 80'"));
    assert!(apart(&plain, &from_elsewhere) > 1000);
}

#[test]
fn what_documents_stand_for_is_limited() {
    let read = |body: &str| {
        let text = format!("<svg xmlns='http://www.w3.org/2000/svg' width='9' height='9'>{body}</svg>");
        Sheet::read_svg(text.as_bytes())
    };
    // Ten of ten of ten and so on, five levels deep.
    let fan = |leaf: &str| {
        let level =
            |k: usize| format!("<g id='u{}'>{}</g>", k + 1, format!("<use href='#u{k}'/>").repeat(10));
        let levels: String = (0..5).map(level).collect();
        read(&format!("<defs>{leaf}{levels}</defs><use href='#u5'/>")).map(|_| ()).unwrap_err().to_string()
    };
    let path = format!("<path id='u0' d='M0 0{}'/>", "L1 2".repeat(3000));
    let told = |what: &str| {
        format!("the document stands for more than {what}; look for `use` elements that multiply one another")
    };
    assert_eq!(fan(&path), told("40000000 vertices"));
    for nothing in ["<g/>", "<foo/>"] {
        let group = format!("<g id='u0'>{}</g>", nothing.repeat(1000));
        assert_eq!(fan(&group), told("5000000 elements"), "{nothing}");
    }
    // Very many kinds of things that are not understood: the first are told one by one.
    let unknown: String =
        (0..20_000).map(|i| format!("<e{i}/><rect width='9' height='9' stroke-width='x{i}'/>")).collect();
    let notes = read(&unknown).unwrap().notes;
    assert_eq!(notes.len(), 201);
    assert_eq!(notes[200].what, "more that is not understood: left out");
    assert_eq!(notes.iter().map(|note| note.count).sum::<usize>(), 40_000);
    // Closing what is closed draws nothing, however often.
    let closed = read(&format!("<path d='M0 0H9V9{}'/>", "z".repeat(1_000_000))).unwrap().sheet;
    assert_eq!(closed.items().next().map(|item| item.path().contours().len()), Some(1));
}

#[test]
fn reading_and_drawing_stop_when_they_must() {
    let none = Budget::new(|| Some(Stopped { advice: "draw less".to_owned(), ..Stopped::new("enough") }));
    let shapes = "<rect width='9' height='9'/>".repeat(10_000);
    let text = format!("<svg xmlns='http://www.w3.org/2000/svg' width='9' height='9'>{shapes}</svg>");
    let read = none.within(|| Sheet::read_svg(text.as_bytes()).map(|_| ())).unwrap_err();
    assert_eq!(read.to_string(), "line 1: enough; draw less");
    let sheet = Sheet::read_svg(text.as_bytes()).unwrap().sheet;
    let none = || Budget::new(|| Some(Stopped::new("enough")));
    assert!(none().within(|| sheet.pixels()).unwrap_err().to_string().ends_with("enough"));
    assert!(none().within(|| sheet.svg()).unwrap_err().to_string().ends_with("enough"));
    assert!(none().within(|| sheet.check()).unwrap_err().to_string().ends_with("enough"));
    assert!(
        none().within(|| sheet.bones(&BonesOptions::default())).unwrap_err().to_string().ends_with("enough")
    );
    // Without one, all is as ever.
    assert!(sheet.pixels().is_ok() && sheet.svg().is_ok());
}

/// Entities and namespaces that a document declares.
#[test]
fn entities_and_namespaces_are_those_of_the_document() {
    let text = "<!DOCTYPE svg [<!ENTITY paint '#7e03b6'><!ENTITY sail '<path d=\"M0 0H9\" stroke=\"&paint;\"/>'>
        <!ENTITY far SYSTEM 'far.txt'><!ENTITY svg 'http://www.w3.org/2000/svg'>]>
        <svg xmlns='&svg;' xmlns:x='urn:kites' width='9' height='9'><rect width='9' height='9' fill='&paint;'/>&sail;&far;
        <x:rect width='9' height='9'/><x:g><circle r='9'/></x:g><rect xmlns='' width='9' height='9'/></svg>";
    let reading = Sheet::read_svg(text.as_bytes()).unwrap();
    assert_eq!(reading.notes, []);
    let items: Vec<_> = reading.sheet.items().map(|placed| placed.item.style().clone()).collect();
    let hex = |paint: Option<&Paint>| paint.and_then(Paint::colour).map(Colour::hex);
    assert_eq!(items.len(), 2);
    assert_eq!(hex(items[0].fill.as_ref()).as_deref(), Some("#7e03b6"));
    assert_eq!(hex(items[1].stroke.as_ref()).as_deref(), Some("#7e03b6"));
    // Elements of another namespace alone make no document.
    assert!(matches!(Sheet::read_svg(b"<svg xmlns='urn:kites'/>"), Err(ReadError::NoSvg)));
}

/// Paints that SVG supports look the same after writing and reading.
#[test]
fn paints_are_read_back_within_a_level() {
    let sail = start((0.0, -40.0)).line((38.0, -10.0)).line((0.0, 44.0)).line((-38.0, -10.0)).close();
    let stripes = pattern(cell((0.0, 0.0), 9.0, 9.0), rectangle((0.0, 0.0), 9.0, 4.0).fill("#c8553d"));
    let dots = pattern(cell((-2.0, 1.0), 7.0, 5.0), circle((1.0, 3.0), 2.0).fill("teal").stroke("navy", 0.7));
    let colours = ["gold", "teal", "#c8553d80"];
    let lamp = radial_gradient((0.0, 0.0), 30.0).focus_circle((6.0, -4.0), 8.0).colours(colours);
    let cone = radial_gradient((10.0, 0.0), 14.0).focus((-24.0, 6.0)).colours(colours);
    let paints: Vec<Paint> = vec![
        stripes.clone().into(),
        stripes.rotated(deg(33.0)).into(),
        dots.clone().scaled(1.7).into(),
        dots.rotated(deg(-71.3)).moved((3.0, 1.0)).into(),
        lamp.clone().into(),
        lamp.spread("reflect").transformed(&Affine::from_scale(pt(1.3, 0.6))).into(),
        cone.into(),
        linear_gradient((-30.0, -20.0), (30.0, 10.0)).colours(["gold", "navy"]).mixed("oklab").into(),
        linear_gradient((0.0, 0.0), (1.0, 1.0))
            .colours(["gold", "navy"])
            .mixed("oklch")
            .measured("box")
            .into(),
    ];
    for paint in paints {
        let item = sail.clone().fill(paint.clone()).rotated(deg(9.0));
        let line = circle((0.0, 0.0), 46.0).stroke(paint.clone(), 7.0).opacity(0.8);
        let own = sheet(110.0, 110.0).centred().ground("#f4efe6").add(item).add(line);
        let read = Sheet::read_svg(own.svg().unwrap().as_bytes()).unwrap();
        assert_eq!(read.notes, []);
        let off = pixels(&own).iter().zip(&pixels(&read.sheet)).map(|(a, b)| a.abs_diff(*b)).max();
        assert!(off <= Some(1), "{paint:?}: {off:?}");
    }
}

/// Paint that is referred to: what it becomes, and what is said of what it cannot be.
#[test]
fn gradients_and_patterns_are_read_as_paint() {
    let stops = "<stop stop-color='teal'/><stop offset='.5' style='stop-color:red;stop-opacity:.5'/>";
    let fill = |defined: &str| read(&format!("{defined}<rect width='40' height='20' fill='url(#g)'/>")).sheet;
    let paint = |defined: &str| fill(defined).items().next().unwrap().item.style().fill.as_ref().cloned();
    let Some(Paint::Gradient(linear)) = paint(&format!("<linearGradient id='g'>{stops}</linearGradient>"))
    else {
        panic!("a gradient")
    };
    assert_eq!((linear.frame, linear.stops().len(), linear.stops()[1].0), (Frame::Box, 2, 0.5));
    let only = "<linearGradient id='g'><stop stop-color='teal' stop-opacity='.5'/></linearGradient>";
    assert_eq!(paint(only).and_then(|paint| paint.colour()).map(Colour::to_rgba8), Some([0, 128, 128, 128]));
    // Without a stop nothing is painted, or what comes in its place.
    let none = "<linearGradient id='g'/><rect width='9' height='9' fill='url(#g) gold'/>";
    let instead = read(none).sheet.items().next().unwrap().item.style().fill.as_ref().and_then(Paint::colour);
    assert_eq!(instead.map(Colour::hex).as_deref(), Some("#ffd700"));
    let pattern = "<pattern id='g' width='10' height='10' patternUnits='userSpaceOnUse'><circle cx='5' cy='5' r='3'/></pattern>";
    assert!(
        matches!(paint(pattern), Some(Paint::Pattern(made)) if made.cell == cell((0.0, 0.0), 10.0, 10.0))
    );
    // What refers to itself ends.
    let own = "<pattern id='g' width='5' height='5' patternUnits='userSpaceOnUse'><rect width='3' height='3' fill='url(#g)'/></pattern>";
    let told = notes(&format!("{own}<rect width='9' height='9' fill='url(#g)'/>"));
    assert_eq!(told, ["line 1: a pattern that is painted with itself is left out"]);
    let masked = "<mask id='m'><rect width='9' height='9' mask='url(#m)'/></mask><rect width='9' height='9' mask='url(#m)'/>";
    assert_eq!(notes(masked), ["line 1: a mask that is masked by itself is left out"]);
    assert_eq!(
        notes(
            "<g id='k'/><rect width='9' height='9' fill='url(#k)'/><rect width='9' height='9' fill='url(#none)'/>"
        ),
        [
            "line 1: a <g> as paint is left out: it is no gradient and no pattern",
            "line 1: \"none\" as paint is not in the document"
        ]
    );
    let chained = "<linearGradient id='a' href='#b'/><linearGradient id='b' href='#a'/><rect width='9' height='9' fill='url(#a)'/>";
    assert_eq!(notes(chained), [] as [String; 0]);
}

#[test]
fn filters_masks_and_images_are_read_as_far_as_they_are_understood() {
    let of = |defined: &str, attribute: &str| {
        let made = read(&format!("{defined}<rect id='sail' width='40' height='20' {attribute}/>")).sheet;
        made.items().next().unwrap().item.clone()
    };
    let shade = "<filter id='f'><feGaussianBlur stdDeviation='2'/><feDropShadow dx='3' dy='4' flood-color='teal' flood-opacity='.5'/></filter>";
    let effects = of(shade, "filter='url(#f)'").compositing().effects.len();
    assert_eq!(effects, 2);
    let other = "<filter id='f'><feGaussianBlur stdDeviation='2'/><feTurbulence/></filter><rect width='9' height='9' filter='url(#f)'/>";
    assert_eq!(
        notes(other),
        ["line 1: the filter step <feTurbulence> is not understood: the filter is left out"]
    );
    let mask = "<mask id='m' style='mask-type:alpha'><circle r='9'/></mask>";
    assert_eq!(
        of(mask, "mask='url(#m)'").compositing().mask.as_ref().map(|mask| mask.kind),
        Some(MaskKind::Alpha)
    );
    assert_eq!(of("", "style='mix-blend-mode:screen'").compositing().blend, BlendMode::Screen);
    assert_eq!(
        notes("<image width='9' height='9' href='kite.png'/>"),
        ["line 1: the image \"kite.png\" is not in the document itself and is not fetched: left out"]
    );
    assert_eq!(
        notes("<image width='9' height='9' href='data:image/png;base64,AAAA'/>"),
        [
            "line 1: an image in the document is left out: it is neither a PNG nor a JPEG file; give one of those"
        ]
    );
    // A stroke that is not scaled along is as wide as it says.
    let wide = read(
        "<g transform='scale(4 1)'><path d='M5 10V30' stroke='navy' stroke-width='2' vector-effect='non-scaling-stroke'/></g>",
    );
    let widest = wide.sheet.items().map(|item| item.stroke_width()).fold(0.0, f64::max);
    assert_eq!(widest, 2.0);
    assert_eq!(
        notes("<text x='4' y='9'>kite</text>"),
        ["line 1: the element <text> at 4, 9 is not understood: left out"]
    );
}

/// Shapes that are painted with one element share one paint: what is worked out for it is worked out once.
#[test]
fn shapes_share_what_they_are_painted_with() {
    let defined = "<linearGradient id='g'><stop stop-color='teal'/><stop offset='1' stop-color='gold'/></linearGradient>\
        <pattern id='p' width='4' height='4' patternUnits='userSpaceOnUse'><rect width='2' height='2'/></pattern>";
    let shapes = |fill: &str| {
        let one = |x: i32| format!("<rect x='{x}' width='9' height='9' fill='url(#{fill})'/>");
        read(&format!("{defined}{}{}", one(0), one(20))).sheet
    };
    for fill in ["g", "p"] {
        let sheet = shapes(fill);
        let text = sheet.svg().unwrap();
        let count = text.matches("<linearGradient").count() + text.matches("<pattern").count();
        assert_eq!(count, 1, "{text}");
    }
}

#[test]
fn titles_and_descriptions_come_back() {
    let page = sheet(9.0, 9.0).title("Sails & vents").description("Two <sails>\nover the water.");
    let again = Sheet::read_svg(page.svg().unwrap().as_bytes()).unwrap().sheet;
    assert_eq!(again.title.as_deref(), Some("Sails & vents"));
    assert_eq!(again.description.as_deref(), Some("Two <sails>\nover the water."));
    let inner = read("<g><title>not the document's</title></g>").sheet;
    assert_eq!((inner.title.as_deref(), inner.description.as_deref()), (None, None));
}

/// A picture that is used many times is decoded once, and its memory counts once.
#[test]
fn a_picture_that_is_used_many_times_is_unpacked_once() {
    let picture = Picture::from_rgba(1024, 1024, &[9, 99, 99, 255].repeat(1 << 20)).unwrap();
    let written = sheet(9.0, 9.0).add(rectangle((0.0, 0.0), 9.0, 9.0).fill(picture)).svg().unwrap();
    let data = written.split("base64,").nth(1).and_then(|rest| rest.split('"').next()).unwrap();
    let uses: String = (0..500).map(|i| format!("<use href='#kite' x='{i}'/>")).collect();
    let text = format!(
        "<svg xmlns='http://www.w3.org/2000/svg' width='90' height='90'>\
         <defs><image id='kite' width='9' height='9' href='data:image/png;base64,{data}'/></defs>{uses}</svg>"
    );
    let asked = Arc::new(AtomicUsize::new(0));
    let count = Arc::clone(&asked);
    let budget = Budget::with_memory(move |bytes| {
        count.fetch_add(bytes, Ordering::Relaxed);
        None
    });
    let read = budget.within(|| Sheet::read_svg(text.as_bytes())).unwrap();
    assert_eq!((read.sheet.items().len(), asked.load(Ordering::Relaxed)), (500, 8 << 20));
    let small = Budget::with_memory(|bytes| (bytes > 1 << 20).then(|| Stopped::new("too much")));
    let fault = small.within(|| Sheet::read_svg(text.as_bytes())).unwrap_err();
    assert!(fault.to_string().contains("too much"), "{fault}");
}
