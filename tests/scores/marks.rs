//! Marks: the same from JSON Lines and from CSV, smoothing against its definition, and what is skipped.

use chordane::prelude::*;
use chordane_score::{MarkFrame, Marks, MarksReading, ScoreError};
use proptest::prelude::*;

/// Three marks that move, the second not always seen.
fn moving(count: usize) -> Marks {
    let frame = |i: usize| {
        let t = i as f64 / 10.0;
        let all = [(0, pt(t, 1.0)), (1, pt(t * t, 40.0 - t)), (7, pt(30.0, (9.0 * t).sin()))];
        MarkFrame::new(all.into_iter().filter(|(number, _)| *number != 1 || i % 4 != 2))
    };
    Marks::from((0..count).map(frame).collect::<Vec<_>>())
}

fn json(marks: &Marks) -> String {
    let line = |frame: &MarkFrame| {
        let marks: Vec<String> =
            frame.points().map(|(number, p)| format!("\"{number}\":[{},{}]", p.x, p.y)).collect();
        format!("{{\"marks\":{{{}}}}}\n", marks.join(","))
    };
    marks.frames().iter().map(line).collect()
}

fn csv(marks: &Marks) -> String {
    let mut out = "frame, mark, x, y\n".to_owned();
    for (i, frame) in marks.frames().iter().enumerate() {
        for (number, p) in frame.points() {
            out.push_str(&format!("{i},{number},{},{}\n", p.x, p.y));
        }
    }
    out
}

#[test]
fn json_lines_and_csv_say_the_same() {
    let marks = moving(30);
    let (lines, rows) =
        (Marks::read_json_lines(&json(&marks)).unwrap(), Marks::read_csv(&csv(&marks)).unwrap());
    assert_eq!((&lines.marks, lines.skipped), (&marks, 0));
    assert_eq!((&rows.marks, rows.skipped), (&marks, 0));
}

#[test]
fn what_cannot_be_read_is_skipped_and_told() {
    let text =
        "[[0,0],[1]]\n{\"points\":[]}\n{\"marks\":{\"a\":[0,0]}}\n7\n[[0,1e999]]\n[[3,4],null]\n\n[[0,0]";
    let reading = Marks::read_json_lines(text).unwrap();
    assert_eq!((reading.marks.frames().len(), reading.skipped), (1, 6));
    assert_eq!(reading.marks.frames()[0].at(0), Some(pt(3.0, 4.0)));
    let told: Vec<String> = reading.told.iter().map(ToString::to_string).collect();
    assert_eq!(
        told[..4],
        [
            "line 1: mark 1 is not a point: write two numbers, as in {\"3\": [12.5, 40]}",
            "line 2: not a frame: it has no \"marks\"",
            "line 3: mark a is not a point: write two numbers, as in {\"3\": [12.5, 40]}",
            "line 4: not a frame: give a list of points, as in [[0, 0], [30, 0]]",
        ]
    );
    let reading =
        Marks::read_csv("frame,mark,x,y,seconds\n0,0,1,2,0\n0,1,x,2,0\n3,0,5,6,0.1\n4,0,inf,6,0.2\n")
            .unwrap();
    assert_eq!((reading.marks.frames().len(), reading.skipped), (2, 2));
    assert_eq!(
        reading.told[0].to_string(),
        "line 3: not a mark: frame and mark must be whole numbers, x and y numbers"
    );
    assert_eq!(reading.marks.at_seconds(0.05).and_then(|frame| frame.at(0)), Some(pt(1.0, 2.0)));
    assert_eq!(reading.marks.at_seconds(9.0).and_then(|frame| frame.at(0)), Some(pt(5.0, 6.0)));
    let unnamed = Marks::read_csv("0,0,1,2\n").unwrap();
    assert_eq!(unnamed.told[0].why, "the first row must name the columns frame, mark, x and y");
    assert_eq!(Marks::read_csv("").unwrap().skipped, 1);
}

#[test]
fn missing_marks_are_dropped_or_held() -> Result<(), Fault> {
    let count = |path: &Path| path.contours().iter().map(Contour::vertex_count).sum::<usize>();
    let marks = moving(12);
    let frame = &marks.frames()[6];
    assert_eq!(count(&frame.closed(&[0, 1, 7])), 2);
    let held = marks.held().unwrap();
    assert_eq!(held.frames()[6].at(1), marks.frames()[5].at(1));
    assert_eq!(count(&held.frames()[6].open(&[7, 1, 0, 9])), 3);
    assert!(frame.closed(&[]).is_empty() && frame.open(&[9]).is_empty());
    // In the order in which they are listed.
    assert_eq!(held.frames()[5].open(&[7, 0]).contours()[0].start(), pt(30.0, (9.0 * 0.5_f64).sin()));
    Ok(())
}

#[test]
fn smoothing_is_a_gaussian_mean_of_what_was_seen() {
    let marks = moving(40);
    for width in [0.7, 2.0, 5.0] {
        let smooth = marks.smoothed(width);
        for (i, frame) in smooth.frames().iter().enumerate() {
            let seen: Vec<usize> = marks.frames()[i].points().map(|(number, _)| number).collect();
            assert_eq!(frame.points().map(|(number, _)| number).collect::<Vec<_>>(), seen);
            for (number, point) in frame.points() {
                let (mut sum, mut all) = (Point::ZERO, 0.0);
                for (j, other) in marks.frames().iter().enumerate() {
                    let weight = (-0.5 * ((i as f64 - j as f64) / width).powi(2)).exp();
                    if let Some(at) = other.at(number) {
                        (sum, all) = (sum + at * weight, all + weight);
                    }
                }
                // What lies beyond three and a half widths is left out.
                assert!(point.distance(sum / all) < 0.02, "{width} {i} {number}");
            }
        }
    }
    // What stands still stays, and nothing changes without a width.
    let still = Marks::from(vec![MarkFrame::new([(3, pt(5.0, 6.0))]); 9]);
    assert_eq!(still.smoothed(3.0), still);
    assert_eq!((marks.smoothed(0.0), marks.smoothed(f64::NAN)), (marks.clone(), marks));
}

/// Wide smoothing agrees with the exact mean to within 0.1, also where frames are missing.
#[test]
fn wide_smoothing_is_that_mean_too() {
    let (count, seen) = (3000_usize, |i: usize| i % 7 != 3 && !(500..900).contains(&i));
    let at = |i: usize| pt((i as f64 / 90.0).sin() * 40.0 + (i % 5) as f64, i as f64 * 0.05);
    let frames = (0..count).map(|i| MarkFrame::new(seen(i).then(|| (4, at(i)))));
    let marks = Marks::from(frames.collect::<Vec<_>>());
    for width in [31.0, 33.0, 60.0, 200.0, 5000.0] {
        let smooth = marks.smoothed(width);
        for i in (0..count).step_by(37).filter(|i| seen(*i)) {
            let (mut sum, mut all) = (Point::ZERO, 0.0);
            for j in (0..count).filter(|j| seen(*j) && (*j as f64 - i as f64).abs() <= 3.5 * width) {
                let weight = (-0.5 * ((i as f64 - j as f64) / width).powi(2)).exp();
                (sum, all) = (sum + at(j) * weight, all + weight);
            }
            let off = smooth.frames()[i].at(4).unwrap().distance(sum / all);
            assert!(off < 0.1, "{width} {i}: {off}");
        }
    }
    let mean = (0..count).filter(|i| seen(*i)).map(at).sum::<Point>()
        / (0..count).filter(|i| seen(*i)).count() as f64;
    assert!(marks.smoothed(f64::INFINITY).frames()[8].at(4).unwrap().distance(mean) < 1e-9);
}

#[test]
fn more_marks_than_are_kept_are_refused() {
    let told = |reading: Result<MarksReading, ScoreError>| reading.unwrap_err().to_string();
    assert_eq!(
        told(Marks::read_json_lines(&"[]\n".repeat(1_000_001))),
        "the marks have more than 1000000 frames"
    );
    // Each frame adds a mark, and holds all earlier ones.
    let each: Vec<MarkFrame> = (0..5000).map(|i| MarkFrame::new([(i, pt(0.0, 0.0))])).collect();
    assert_eq!(
        Marks::from(each).held().unwrap_err().to_string(),
        "the marks have more than 10000000 points in all frames together"
    );
    let long = format!("[{}[0,0]]", "[0,0],".repeat(200_000));
    let reading = Marks::read_json_lines(&long).unwrap();
    assert_eq!(reading.told[0].to_string(), "line 1: not a frame: it is longer than 1 MB");
}

proptest! {
    #[test]
    fn no_line_is_fatal(text in "\\PC{0,60}", rows in "[0-9a-z,.\n\"-]{0,80}") {
        let reading = Marks::read_json_lines(&text).unwrap();
        prop_assert!(reading.marks.frames().len() + reading.skipped <= text.lines().count());
        let rows = Marks::read_csv(&format!("frame,mark,x,y\n{rows}")).unwrap();
        prop_assert!(rows.told.len() == rows.skipped.min(100));
    }
}
