//! Words for marks.

use crate::marks::MarkFrame;
use chordane::ground::plain_number;
use chordane::prelude::*;

use super::entry::{Section, Word, word};
use crate::call::Call;
use crate::call_error::CallError;

pub(super) fn section() -> Section {
    Section {
        title: "Marks",
        about: "Numbered points that move from frame to frame, as a tracker gives them, each moment of the loop with its own. Shapes are \
            made by listing their numbers.",
        words: words(),
    }
}

fn words() -> Vec<Word> {
    vec![
        word(
            "mark(number)",
            "The position of a mark at this moment.",
            r##"circle(mark(0), 9).fill("teal")"##,
            |call: &Call<'_>, number: usize| call.stage(|stage| stage.mark(number)).map_err(CallError::from),
        ),
        word(
            "mark_numbers()",
            "The numbers of the marks present at this moment, in order.",
            r##"mark_numbers().map(|k| circle(mark(k), 4).fill("teal"))"##,
            |call: &Call<'_>| {
                let numbers = |frame: &MarkFrame| frame.points().map(|(number, _)| number as f64).collect();
                call.stage(|stage| stage.marks().map(numbers)).map_err(CallError::from) as Result<Vec<f64>, _>
            },
        ),
        word(
            "marks_closed(numbers)",
            "The closed path through the listed marks, in that order; missing marks are left out.",
            r##"marks_closed([0, 1, 2, 3]).fill("#c8553d")"##,
            |call: &Call<'_>, numbers: Vec<f64>| listed(call, &numbers, true),
        ),
        word(
            "marks_open(numbers)",
            "The open path through the listed marks, in that order; missing marks are left out.",
            r##"marks_open([2, 5, 6]).stroke("#20303c", 2)"##,
            |call: &Call<'_>, numbers: Vec<f64>| listed(call, &numbers, false),
        ),
    ]
}

fn listed(call: &Call<'_>, numbers: &[f64], closed: bool) -> Result<Path, CallError> {
    let whole = |number: &f64| {
        let sound = *number >= 0.0 && number.fract() == 0.0 && *number <= f64::from(u32::MAX);
        sound.then_some(*number as usize).ok_or_else(|| {
            let number = plain_number(*number);
            CallError::new(format!(
                "mark numbers must be whole and not negative, got {number}; list them as in [0, 1, 2]"
            ))
        })
    };
    let numbers = numbers.iter().map(whole).collect::<Result<Vec<_>, _>>()?;
    let made = call.stage(|stage| {
        stage.marks().map(|frame| if closed { frame.closed(&numbers) } else { frame.open(&numbers) })
    });
    made.map_err(CallError::from)
}
