//! Tracks of the pointer as files: a line of JSON for each moment.

use std::path::Path;

use chordane::number::Point;
use chordane_score::{Pointer, PointerTrack};
use serde::Deserialize;

use crate::failure::Failure;
use crate::input::read_file;

/// A moment of a track.
#[derive(Debug, Deserialize)]
struct Moment {
    seconds: f64,
    at: [f64; 2],
    #[serde(default)]
    down: bool,
}

/// The track in a file.
pub(crate) fn read(file: &Path) -> Result<PointerTrack, Failure> {
    let name = file.display();
    let mend = "write a line for each moment: {\"seconds\": 0.1, \"at\": [12, 40], \"down\": true}";
    let bytes = read_file(file)?;
    let text =
        std::str::from_utf8(&bytes).map_err(|_| Failure::input(format!("{name} is not text"), mend))?;
    let mut moments = Vec::new();
    for (number, line) in text.lines().enumerate().filter(|(_, line)| !line.trim().is_empty()) {
        let moment: Moment = serde_json::from_str(line)
            .map_err(|error| Failure::input(format!("{name}, line {}: {error}", number + 1), mend))?;
        let at = Point::from(moment.at);
        let pointer = if moment.down { Pointer::down(at) } else { Pointer::at(at) };
        moments.push((moment.seconds, pointer));
    }
    if moments.is_empty() {
        return Err(Failure::input(format!("{name} holds no moments of a pointer track"), mend));
    }
    Ok(PointerTrack::new(moments))
}
