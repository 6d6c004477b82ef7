//! What is traced, as files: shapes, a score, Rust, or path data.

use std::path::Path;

use chordane::draft::Draft;
use chordane_score::drafts;

use crate::failure::Failure;

/// What can be written, by the endings of names.
const EXTENSIONS: &str = ".svg, .chord, .rs or .txt";

/// Whether the name of an output says what it is to hold.
pub(crate) fn is_known(out: &Path) -> Result<(), Failure> {
    bytes(&Draft::new(), [1, 1], out).map(drop)
}

/// The bytes of an output.
pub(crate) fn bytes(draft: &Draft, [width, height]: [u32; 2], out: &Path) -> Result<Vec<u8>, Failure> {
    let ending = out.extension().and_then(|ending| ending.to_str()).unwrap_or_default().to_ascii_lowercase();
    let (width, height) = (f64::from(width), f64::from(height));
    match ending.as_str() {
        "svg" => {
            let sheet = draft.sheet(width, height);
            let svg = sheet.svg().map_err(|fault| Failure::of_fault(&fault, "undo the last step"))?;
            Ok(svg.into_bytes())
        }
        "chord" => Ok(drafts::score(draft, width, height).into_bytes()),
        "rs" => Ok(drafts::rust(draft, width, height).into_bytes()),
        "txt" => Ok(draft.data().into_bytes()),
        _ => Err(Failure::call(
            format!("cannot tell from the name {} what to write", out.display()),
            format!("end the name in {EXTENSIONS}: shapes, a score, Rust, or path data"),
        )),
    }
}
