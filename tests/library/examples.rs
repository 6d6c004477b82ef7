//! Each example runs and leaves its two files. Cargo builds the examples along with the tests.

use std::path::PathBuf;
use std::process::Command;

/// Tests lie in target/<profile>/deps, examples in target/<profile>/examples.
fn example(name: &str) -> PathBuf {
    let mut program: PathBuf = std::env::current_exe().unwrap();
    program.pop();
    program.pop();
    program.push("examples");
    program.push(format!("{name}{}", std::env::consts::EXE_SUFFIX));
    program
}

fn run(name: &str) {
    let folder = tempfile::tempdir().unwrap();
    let program = example(name);
    let done = Command::new(&program)
        .arg(folder.path())
        .output()
        .unwrap_or_else(|e| panic!("{program:?}: {e}; build the examples first: cargo build --examples"));
    assert!(done.status.success(), "{}", String::from_utf8_lossy(&done.stderr));
    let told = String::from_utf8(done.stdout).unwrap();
    assert!(told.contains(&folder.path().display().to_string()), "{told}");
    for ending in ["svg", "png"] {
        let file = folder.path().join(format!("{}.{ending}", name.replace('_', "-")));
        assert!(std::fs::metadata(&file).unwrap().len() > 200, "{file:?}");
    }
}

#[test]
fn first_sail_runs() {
    run("first_sail");
}

#[test]
fn ring_of_vents_runs() {
    run("ring_of_vents");
}

#[test]
fn which_arc_runs() {
    run("which_arc");
}

#[test]
fn triangles_runs() {
    run("triangles");
}

#[test]
fn cells_runs() {
    run("cells");
}

#[test]
fn wheels_runs() {
    run("wheels");
}

#[test]
fn along_the_line_runs() {
    run("along_the_line");
}

#[test]
fn combining_runs() {
    run("combining");
}

#[test]
fn flight_runs() {
    run("flight");
}

#[test]
fn lanterns_runs() {
    run("lanterns");
}

#[test]
fn pointer_runs() {
    run("pointer");
}

#[test]
fn round_the_reel_runs() {
    run("round_the_reel");
}

#[test]
fn pen_strokes_runs() {
    run("pen_strokes");
}
