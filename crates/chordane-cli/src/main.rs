//! The `chordane` command.

use std::process::ExitCode;

fn main() -> ExitCode {
    chordane_cli::main()
}
