//! Contact sheets of `vary`, and their pictures made again.

use predicates::prelude::PredicateBooleanExt;
use predicates::str::contains;

use super::command::{names, png_size};
use crate::support::{SAIL, chordane, loft};

const KNOBBED: &str = r##"
let pinch = knob("pinch", 0.5, 0, 1);
let sides = knob("sides", 5, 3, 9);
let size = asked_size(120, 90);
let spot = dice("spot").between(-20, 20);
sheet(size.x, size.y).centred().add(wheel_polygon(pt(spot, 0), sides, 20, pinch).fill("teal"))
"##;

#[test]
fn pictures_that_cannot_be_made_are_left_blank_and_told() {
    let (folder, score) = loft(
        "let n = knob(\"n\", 3, 1, 9);\nlet r = 40 / (5 - n);\nsheet(120, 90).centred().add(circle(pt(0, 0), r).fill(\"teal\"))\n",
    );
    let out = folder.path().join("all.png");
    let vary = |range: &str| {
        chordane()
            .arg("vary")
            .arg(&score)
            .arg("-o")
            .arg(&out)
            .args(["--over", range, "--keep", "all"])
            .assert()
    };
    vary("n=2..7:6")
        .code(1)
        .stderr(contains("in picture 5, n=6:").and(contains("the radius -40 is negative")))
        .stderr(contains("error: 3 of 6 pictures could not be made: 4, 5, 6"));
    assert_eq!(names(folder.path()), ["all-1.png", "all-2.png", "all-3.png", "all.png", "kite.chord"]);
    std::fs::remove_file(&out).unwrap();
    vary("n=6..7:2").code(1).stderr(contains("is negative"));
    assert!(!out.exists(), "nothing could be drawn");
}

#[test]
fn vary_draws_contact_sheets_and_keeps_what_is_asked_for() {
    let (folder, score) = loft(KNOBBED);
    let out = folder.path().join("all.png");
    let vary = |arguments: &[&str]| {
        let mut command = chordane();
        command.arg("vary").arg(&score).arg("-o").arg(&out).args(arguments);
        command.assert()
    };
    vary(&["--seeds", "6", "--keep", "2,5", "--set", "sides=4"]).success().stderr(contains("6 pictures"));
    assert_eq!(names(folder.path()), ["all-2.png", "all-5.png", "all.png", "kite.chord"]);
    assert_eq!(png_size(&folder.path().join("all-5.png")), (120, 90));
    let seeds = std::fs::read(&out).unwrap();
    vary(&["--seeds", "6", "--set", "sides=4"]).success();
    assert_eq!(std::fs::read(&out).unwrap(), seeds, "the same bytes again");
    vary(&["--over", "pinch=0..1:3", "--over", "sides=3,4"]).success().stderr(contains("6 pictures"));
    vary(&["--sizes", "120x90,300x90,60x200"]).success().stderr(contains("3 pictures"));
    vary(&["--over", "pinch=0..1:3", "--seeds", "2"]).success().stderr(contains("6 pictures"));
    vary(&["--seeds", "12", "--keep", "3,9..10,all", "--bones"]).success().stderr(contains("12 pictures"));
    let kept = names(folder.path()).into_iter().filter(|name| name.starts_with("all-")).collect::<Vec<_>>();
    assert!(kept.len() == 14 && kept.contains(&"all-03.png".to_owned()), "{kept:?}");
    for (wrong, told) in [
        (&[][..], "it is not said what to vary"),
        (&["--seeds", "0"], "0 is not in 1..=1000"),
        (&["--seeds", "10000000"], "is not in 1..=1000"),
        (&["--seeds", "x"], "invalid"),
        (&["--seeds", "2", "--sizes", "5x5"], "more than one thing"),
        (&["--sizes", "0x5"], "two whole numbers above 0"),
        (&["--over", "pinch=0..1"], "does not say in how many steps"),
        (&["--over", "pinch=0..9:3"], "the knob \"pinch\" cannot be set to"),
        (&["--over", "pinhc=0..1:3"], "did you mean \"pinch\"?"),
        (&["--over", "pinch=0..1:3", "--over", "pinch=0..1:2"], "is given twice"),
        (
            &["--seeds", "2", "-o", "all.gif"],
            "cannot tell the format from the file name all.gif\n  help: end the name in .svg or .png\n",
        ),
        (&["--seeds", "3", "--keep", "4"], "there is no picture 4 to keep"),
        (&["--seeds", "3", "--keep", "1..4"], "there is no picture 4 to keep"),
        (
            &["--seeds", "3", "--keep", "3..1"],
            "--keep 3..1 is not a picture's number\n  help: write 7, 2..5 or all",
        ),
        (
            &["--seeds", "3", "--over", "pinch=0..1:2", "--over", "sides=3,4"],
            "--over is given 2 times beside --seeds",
        ),
        (&["--seeds", "3", "--set", "pinch=1", "--set", "pinch=0"], "is set twice"),
    ] {
        vary(wrong).code(2).stderr(contains(told));
    }
}

#[test]
fn any_picture_of_a_contact_sheet_can_be_made_again() {
    let source = r##"let top = knob("top", pt(50, 10));
let cloth = knob("cloth", "teal");
sheet(100, 80).add(closed([top, [90, 70], [10, 70]]).fill(cloth))
"##;
    let (folder, score) = loft(source);
    let at = |name: &str| folder.path().join(name);
    for sheet in ["all.svg", "all.png"] {
        chordane()
            .args(["vary", "--over", "top=(20,10),(80,10)", "--over", "cloth=rgb(200, 85, 61),teal", "-o"])
            .arg(at(sheet))
            .arg(&score)
            .assert()
            .success();
        chordane()
            .args(["draw", "--again", "--tile", "2", "-o"])
            .arg(at("tile.svg"))
            .arg(at(sheet))
            .assert()
            .success();
        chordane()
            .args(["draw", "--set", "top=80,10", "--set", "cloth=rgb(200, 85, 61)", "-o"])
            .arg(at("own.svg"))
            .arg(&score)
            .assert()
            .success();
        assert_eq!(std::fs::read(at("tile.svg")).unwrap(), std::fs::read(at("own.svg")).unwrap(), "{sheet}");
    }
    let svg = std::fs::read_to_string(at("all.svg")).unwrap();
    assert_eq!(svg.matches("let cloth").count(), 1, "the score's text stands in it once");
    for (tile, message) in [
        (&[][..], "is a contact sheet of 4 pictures\n  help: say which one with --tile, 1 to 4\n"),
        (&["--tile", "0"], "has no tile 0\n  help: give 1 to 4\n"),
        (&["--tile", "5"], "has no tile 5\n  help: give 1 to 4\n"),
    ] {
        chordane()
            .args(["draw", "--again", "-o"])
            .arg(at("tile.svg"))
            .arg(at("all.png"))
            .args(tile)
            .assert()
            .code(2)
            .stderr(contains(message));
    }
    chordane()
        .args(["draw", "--again", "--tile", "1", "-o"])
        .arg(at("again.svg"))
        .arg(at("own.svg"))
        .assert()
        .code(2)
        .stderr(contains("is one picture, without a tile 1\n  help: leave out --tile\n"));
}

#[test]
fn a_kept_picture_can_be_made_again_from_its_file_alone() {
    let (folder, score) = loft(KNOBBED);
    let at = |name: &str| folder.path().join(name);
    chordane()
        .arg("draw")
        .arg(&score)
        .args(["--seed", "9", "--set", "pinch=0.25", "--size", "200x100", "-o"])
        .arg(at("first.png"))
        .arg("-o")
        .arg(at("first.svg"))
        .assert()
        .success();
    // The score is gone; each file still knows all of it.
    std::fs::remove_file(&score).unwrap();
    for from in ["first.png", "first.svg"] {
        chordane().arg("draw").arg("--again").arg(at(from)).arg("-o").arg(at("again.svg")).assert().success();
        let (first, again) =
            (std::fs::read_to_string(at("first.svg")), std::fs::read_to_string(at("again.svg")));
        assert_eq!(first.unwrap(), again.unwrap());
    }
    // So it is where the score has a size of its own.
    let (other, fixed) = loft(SAIL);
    let at_other = |name: &str| other.path().join(name);
    chordane()
        .arg("draw")
        .arg(&fixed)
        .args(["--size", "200x100", "-o"])
        .arg(at_other("a.png"))
        .assert()
        .success();
    chordane()
        .arg("draw")
        .arg("--again")
        .arg(at_other("a.png"))
        .arg("-o")
        .arg(at_other("b.png"))
        .assert()
        .success();
    assert_eq!(std::fs::read(at_other("a.png")).unwrap(), std::fs::read(at_other("b.png")).unwrap());
    // A setting of the call goes before that of the file.
    chordane()
        .arg("draw")
        .arg("--again")
        .arg(at("first.png"))
        .args(["--set", "pinch=1", "-o"])
        .arg(at("other.svg"))
        .assert()
        .success();
    assert_ne!(std::fs::read(at("other.svg")).unwrap(), std::fs::read(at("first.svg")).unwrap());
    std::fs::write(at("plain.svg"), "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"9\" height=\"9\"/>")
        .unwrap();
    chordane()
        .arg("draw")
        .arg("--again")
        .arg(at("plain.svg"))
        .args(["-o", "x.svg"])
        .assert()
        .code(2)
        .stderr(contains("does not say how it was made"));
}
