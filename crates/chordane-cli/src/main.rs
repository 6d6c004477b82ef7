//! The `chordane` command.

use std::alloc::System;
use std::process::ExitCode;

use chordane_score::CountingAllocator;

/// Counts what each score holds, so that one that takes too much is stopped whatever else is drawn.
#[global_allocator]
static ALLOCATOR: CountingAllocator<System> = CountingAllocator::system();

fn main() -> ExitCode {
    chordane_cli::main()
}
