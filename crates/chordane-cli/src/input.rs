//! Reading what is to be drawn.

use std::io::Read;
use std::path::Path;

use crate::failure::Failure;

/// The text of a score and what messages call it.
pub(crate) fn read_score(file: &Path) -> Result<(String, String), Failure> {
    if file == Path::new("-") {
        let mut bytes = Vec::new();
        std::io::stdin().read_to_end(&mut bytes).map_err(|error| {
            Failure::machine(format!("standard input cannot be read: {error}"), "name a .chord file instead")
        })?;
        return Ok(("standard input".to_owned(), text(bytes, "standard input")?));
    }
    let name = file.display().to_string();
    let ending = file.extension().and_then(|ending| ending.to_str()).unwrap_or_default();
    if !ending.eq_ignore_ascii_case("chord") {
        return Err(Failure::call(
            format!("{name} is no score: its ending is not .chord"),
            "name a .chord file, or - to read a score from standard input",
        ));
    }
    let bytes = std::fs::read(file).map_err(|error| match error.kind() {
        std::io::ErrorKind::NotFound => {
            Failure::call(format!("there is no file {name}"), "check the name and the folder")
        }
        _ => Failure::machine(
            format!("{name} cannot be read: {error}"),
            "check that it is a file you may read",
        ),
    })?;
    let source = text(bytes, &name)?;
    Ok((name, source))
}

fn text(bytes: Vec<u8>, name: &str) -> Result<String, Failure> {
    String::from_utf8(bytes).map_err(|error| {
        let at = error.utf8_error().valid_up_to();
        Failure::input(format!("{name} is no text: byte {at} is not UTF-8"), "save the score as UTF-8 text")
    })
}
