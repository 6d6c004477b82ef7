//! A tracker that is made up: the corner points of a kite in wind, frame after frame, as a camera would see them.

use std::io::{self, ErrorKind, Write};
use std::time::{Duration, Instant};

use chordane::chance::Dice;
use chordane::number::{Angle, Point, deg, polar, pt, turns};

use crate::failure::Failure;
use crate::output::is_open;

const FPS: f64 = 30.0;

/// How long the kite takes for a round of its eight.
const LOOP_SECONDS: f64 = 6.0;

/// The kite's corners, its middle, and three bows of its tail, as it hangs still.
const CORNERS: [Point; 8] = [
    pt(0.0, -64.0),
    pt(52.0, -14.0),
    pt(0.0, 70.0),
    pt(-52.0, -14.0),
    pt(0.0, -14.0),
    pt(4.0, 100.0),
    pt(-6.0, 132.0),
    pt(5.0, 164.0),
];

/// How far the points tremble, in pixels.
const JITTER: f64 = 0.8;

/// One frame of so many does not see a point.
const DROPOUT_RATE: f64 = 0.03;

/// Streams frames to standard output, for ever or so many of them; ends where nobody reads any more.
pub(crate) fn stream(frames: Option<usize>) -> Result<(), Failure> {
    is_open()?;
    let begin = Instant::now();
    let mut out = io::stdout().lock();
    for frame in 0..frames.unwrap_or(usize::MAX) {
        let due = Duration::from_secs_f64(frame as f64 / FPS);
        std::thread::sleep(due.saturating_sub(begin.elapsed()));
        match writeln!(out, "{}", line(frame)).and_then(|()| out.flush()) {
            Ok(()) => {}
            Err(error) if error.kind() == ErrorKind::BrokenPipe => return Ok(()),
            Err(error) => return Err(Failure::standard_output(&error)),
        }
    }
    Ok(())
}

/// The line of a frame; the same for the same frame.
fn line(frame: usize) -> String {
    let seconds = frame as f64 / FPS;
    let phase = seconds / LOOP_SECONDS;
    let at = pt(320.0, 170.0) + pt(150.0 * turns(phase).sin(), 52.0 * turns(2.0 * phase).sin());
    let heel = deg(26.0 * turns(phase).cos());
    let mut dice = Dice::new(frame as u64, "tracker");
    let marks = CORNERS.iter().enumerate().map(|(number, corner)| {
        // The tail swings on its own.
        let sway =
            if number > 4 { deg(10.0 * turns(phase * 3.0 - 0.1 * number as f64).sin()) } else { deg(0.0) };
        let own = polar(Angle::of(*corner) + heel + sway, corner.length());
        let tremble = pt(dice.normal(0.0, JITTER), dice.normal(0.0, JITTER));
        let missed = dice.between(0.0, 1.0) < DROPOUT_RATE;
        let seen = at + own + tremble;
        if missed { "null".to_owned() } else { format!("[{:.2},{:.2}]", seen.x, seen.y) }
    });
    format!("{{\"marks\":[{}],\"seconds\":{seconds:.3}}}", marks.collect::<Vec<_>>().join(","))
}

#[cfg(test)]
mod tests {
    use chordane_score::Marks;

    use super::*;

    #[test]
    fn what_is_streamed_can_be_read_and_is_a_kite() {
        let text: String = (0..180).map(|frame| line(frame) + "\n").collect();
        let reading = Marks::read_json_lines(&text).unwrap();
        assert_eq!((reading.marks.frames().len(), reading.skipped), (180, 0));
        let held = reading.marks.held().unwrap().smoothed(2.0);
        for frame in &held.frames()[10..] {
            // Its cloth is as large as it is, but for the trembling.
            let area = frame.closed(&[0, 1, 2, 3]).area().unwrap_or(0.0);
            assert!((area - 6968.0).abs() < 200.0, "{area}");
        }
        let seen: usize = reading.marks.frames().iter().map(|frame| frame.points().len()).sum();
        assert!(seen < 180 * 8 && seen > 180 * 7, "{seen}");
    }
}
