//! SVG files and saving.

use chordane::prelude::*;
use chordane::write::SaveError;

#[test]
fn a_sheet_is_written_small_and_plain() {
    let sail = start((0.0, -120.0)).line((90.0, -30.0)).line((0.0, 120.0)).line((-90.0, -30.0)).close();
    let sheet = sheet(640.0, 480.0)
        .centred()
        .ground("#f4efe6")
        .add(sail.clone().with_hole(circle((0.0, -30.0), 18.0)).fill("#c8553d").stroke("#20303c", 3.0))
        .add(
            group()
                .named("tail & bows")
                .add(
                    sail.clone()
                        .stroke("teal", 2.0)
                        .cap("round")
                        .join("bevel")
                        .dash([4.0, 2.5])
                        .dash_offset(1.0),
                )
                .opacity(0.5)
                .moved((10.0, 0.0)),
        )
        .add(sail.clone().fill("rgb(0 0 0 / 25%)").fill_rule("evenodd").rotated(deg(90.0)))
        .add(sail.fill("white").stroke("black", 1.0).opacity(0.3).mitre_limit(9.0));
    assert_eq!(
        sheet.svg().unwrap(),
        r##"<svg xmlns="http://www.w3.org/2000/svg" width="640" height="480" viewBox="-320 -240 640 480">
<rect x="-320" y="-240" width="640" height="480" fill="#f4efe6"/>
<path fill="#c8553d" stroke="#20303c" stroke-width="3" d="M0-120 90-30 0 120-90-30ZM18-30A18 18 0 0 0 0-48 18 18 0 0 0-18-30 18 18 0 0 0 0-12 18 18 0 0 0 18-30Z"/>
<g id="tail &amp; bows" transform="translate(10 0)" opacity=".5">
<path fill="none" stroke="#008080" stroke-width="2" stroke-linecap="round" stroke-linejoin="bevel" stroke-dasharray="4 2.5" stroke-dashoffset="1" d="M0-120 90-30 0 120-90-30Z"/>
</g>
<path transform="matrix(0 1 -1 0 0 0)" fill="#000" fill-opacity=".25" fill-rule="evenodd" d="M0-120 90-30 0 120-90-30Z"/>
<path fill="#fff" stroke="#000" stroke-miterlimit="9" opacity=".3" d="M0-120 90-30 0 120-90-30Z"/>
</svg>
"##
    );
}

#[test]
fn units_give_the_true_size_and_y_up_turns_the_drawing() {
    let svg =
        sheet(210.0, 297.0).unit(Unit::Mm).y_up().add(circle((10.0, 20.0), 5.0).fill("red")).svg().unwrap();
    assert!(svg.contains(r#"width="210mm" height="297mm" viewBox="0 0 210 297""#), "{svg}");
    assert!(svg.contains(r#"<g transform="matrix(1 0 0 -1 0 297)">"#), "{svg}");
    let shown = sheet(100.0, 50.0).ground("red").svg_with(&WriteOptions::sized(200, 200)).unwrap();
    assert!(shown.contains(r#"width="200" height="200" viewBox="0 0 100 50""#), "{shown}");
    assert!(shown.contains(r#"y="-25" width="100" height="100""#), "{shown}");
}

#[test]
fn coordinates_keep_what_the_sheet_can_show() {
    let tiny = sheet(1.0, 1.0).add(circle((0.5, 0.5), 1.0 / 3.0).fill("red")).svg().unwrap();
    assert!(tiny.contains(".333333"), "{tiny}");
    let large = sheet(1e6, 1e6).add(circle((0.5, 0.5), 100.0 / 3.0).fill("red")).svg().unwrap();
    assert!(large.contains("A33 33"), "{large}");
    let enlarged =
        sheet(100.0, 100.0).add(circle((0.0, 0.0), 1.0 / 3.0).fill("red").scaled(100.0)).svg().unwrap();
    assert!(enlarged.contains("A.333333.333333"), "{enlarged}");
    let few = sheet(100.0, 100.0).add(circle((0.0, 0.0), 1.0 / 3.0).fill("red"));
    assert!(
        few.svg_with(&WriteOptions { decimals: Some(1), ..WriteOptions::default() })
            .unwrap()
            .contains("A.3.3")
    );
}

#[test]
fn faults_come_back_from_everything_that_leaves() {
    let bad = sheet(10.0, 10.0).add(group().add(circle((0.0, 0.0), -1.0).fill("red")));
    let told = "`circle`: the radius -1 is negative; give 0 or more";
    assert_eq!(bad.svg().unwrap_err().to_string(), told);
    assert_eq!(bad.pixels().unwrap_err().to_string(), told);
    assert_eq!(bad.save("never-written.svg").unwrap_err().to_string(), told);
    assert!(!std::path::Path::new("never-written.svg").exists());
    let unknown = sheet(10.0, 10.0).add(circle((0.0, 0.0), 1.0).fill("red").cap("pointed"));
    assert_eq!(
        unknown.svg().unwrap_err().to_string(),
        "`cap`: \"pointed\" is not a cap; give \"butt\", \"round\" or \"square\""
    );
    let carried = circle((0.0, 0.0), f64::NAN).moved((5.0, 5.0)).reversed().and(&circle((0.0, 0.0), 1.0));
    assert_eq!(carried.sound().unwrap_err().call(), "circle");
}

#[test]
fn files_are_written_whole_or_not_at_all() {
    let folder = tempfile::tempdir().unwrap();
    let sheet = sheet(10.0, 10.0).add(circle((5.0, 5.0), 3.0).fill("red"));
    for name in ["kite.svg", "kite.png", "kite.PNG"] {
        sheet.save(folder.path().join(name)).unwrap();
    }
    assert_eq!(
        sheet.save("kite.txt").unwrap_err().to_string(),
        "kite.txt: cannot tell the format from the file name; end it in .svg or .png"
    );
    let error = sheet.save(folder.path().join("nowhere/kite.svg")).unwrap_err();
    assert!(matches!(error, SaveError::Write { .. }), "{error}");
    // An older file stays when the new one cannot be drawn.
    let kept = folder.path().join("kite.svg");
    let before = std::fs::read(&kept).unwrap();
    assert!(sheet.add(circle((0.0, 0.0), -1.0)).save(&kept).is_err());
    assert_eq!(std::fs::read(&kept).unwrap(), before);
    assert_eq!(std::fs::read_dir(folder.path()).unwrap().count(), 3, "nothing else is left behind");
}

#[test]
fn gradients_are_defined_once_and_named() {
    let dusk = linear_gradient((0.0, 0.0), (0.0, 30.0)).colours(["#20303c", "#c8553d80"]);
    let page = sheet(40.0, 30.0).add(rectangle((0.0, 0.0), 20.0, 30.0).fill(&dusk)).add(
        rectangle((20.0, 0.0), 20.0, 30.0)
            .fill(&dusk)
            .stroke(dusk.clone().measured("box").spread("repeat"), 2.0),
    );
    assert_eq!(
        page.svg().unwrap(),
        "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"40\" height=\"30\" viewBox=\"0 0 40 30\">\n\
         <linearGradient id=\"gradient-1\" gradientUnits=\"userSpaceOnUse\" x1=\"0\" y1=\"0\" x2=\"0\" y2=\"30\">\
         <stop offset=\"0\" stop-color=\"#20303c\"/><stop offset=\"1\" stop-color=\"#c8553d\" stop-opacity=\".502\"/>\
         </linearGradient>\n\
         <path fill=\"url(#gradient-1)\" d=\"M0 0H20V30H0Z\"/>\n\
         <linearGradient id=\"gradient-2\" x1=\"0\" y1=\"0\" x2=\"0\" y2=\"30\" spreadMethod=\"repeat\">\
         <stop offset=\"0\" stop-color=\"#20303c\"/><stop offset=\"1\" stop-color=\"#c8553d\" stop-opacity=\".502\"/>\
         </linearGradient>\n\
         <path fill=\"url(#gradient-1)\" stroke=\"url(#gradient-2)\" stroke-width=\"2\" d=\"M20 0H40V30H20Z\"/>\n</svg>\n"
    );
}

#[test]
fn gradients_that_cannot_be_are_told() {
    let told = |gradient: Gradient| {
        circle((0.0, 0.0), 9.0).fill(gradient).sound().map(drop).map_err(|fault| fault.to_string())
    };
    let bare = linear_gradient((0.0, 0.0), (9.0, 0.0));
    let cases = [
        (
            bare.clone(),
            "`fill`: the gradient has no colours; give it some, as in .colours([\"gold\", \"teal\"])",
        ),
        (bare.clone().stop(1.5, "teal"), "`stop`: the share 1.5 is out of range; give 0 to 1"),
        (
            radial_gradient((0.0, 0.0), -3.0).colours(["teal"]),
            "`radial_gradient`: the radius -3 is negative; give 0 or more",
        ),
        (
            bare.clone().colours(["teal"]).spread("mirror"),
            "`spread`: \"mirror\" is not a spread; give \"pad\", \"repeat\" or \"reflect\"",
        ),
        (
            bare.clone().colours([rgb(f64::NAN, 0.0, 0.0)]),
            "`colours`: the red NaN is not finite; give a finite number",
        ),
    ];
    for (gradient, want) in cases {
        assert_eq!(told(gradient), Err(want.to_owned()));
    }
    // One of which nothing can be seen paints nothing, and one that can hides what is under it.
    let ball = || circle((30.0, 30.0), 9.0);
    let found = |item: Item| {
        let page = sheet(60.0, 60.0).add(ball().fill("teal")).add(item);
        page.check().unwrap().findings.iter().map(|finding| finding.code.name()).collect::<Vec<_>>()
    };
    assert_eq!(found(ball().fill(bare.clone().colours(["transparent", "#fff0"]))), ["unpainted"]);
    assert_eq!(found(ball().fill(bare.clone().colours(["teal", "white"]))), ["covered"]);
    assert_eq!(found(ball().fill(bare.clone().colours(["teal", "#fff8"]))), [""; 0]);
    // One stop is that colour all over; a stop before the one that it follows counts as at the same share.
    let one = sheet(9.0, 9.0).ground(bare.clone().stop(0.3, "teal")).pixels().unwrap();
    assert!(one.as_slice().iter().all(|pixel| *pixel == [0, 128, 128, 255]));
    let back = bare.stop(0.6, "red").stop(0.2, "blue");
    assert_eq!((back.at(0.5).hex(), back.at(0.7).hex()), ("#f00".to_owned(), "#00f".to_owned()));
}
