//! Runs the checks of the fuzzer through its seeds, through what it once found, and through some bytes by chance.

use std::fs;
use std::path::Path;

use chordane_fuzz::{CHECKS, Check};
use rand_pcg::Pcg32;
use rand_pcg::rand_core::Rng;

fn seeds(name: &str) -> Vec<(String, Vec<u8>)> {
    let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("seeds").join(name);
    let mut seeds: Vec<_> = fs::read_dir(&folder)
        .unwrap_or_else(|error| panic!("{}: {error}", folder.display()))
        .map(|entry| entry.unwrap().path())
        .map(|path| (path.display().to_string(), fs::read(&path).unwrap()))
        .collect();
    seeds.sort();
    seeds
}

fn through_all(name: &str, check: Check) {
    let seeds = seeds(name);
    assert!(seeds.len() >= 8, "{name} has {} seeds", seeds.len());
    for (path, bytes) in &seeds {
        eprintln!("{path}");
        check(bytes);
    }
    let mut chance = Pcg32::new(0x5ce77, 14);
    for length in 0..200 {
        let mut bytes = vec![0; length];
        chance.fill_bytes(&mut bytes);
        check(&bytes);
        // A seed with some bytes of its own.
        let (path, seed) = &seeds[length % seeds.len()];
        let mut bytes = seed.clone();
        for _ in 0..chance.next_u32() % 4 {
            let at = chance.next_u32() as usize % bytes.len().max(1);
            if let Some(byte) = bytes.get_mut(at) {
                *byte = chance.next_u32() as u8;
            }
        }
        eprintln!("{path}, changed");
        check(&bytes);
    }
}

#[test]
fn every_check_has_its_program_and_its_seeds() {
    for (name, _) in CHECKS {
        let program = Path::new(env!("CARGO_MANIFEST_DIR")).join("targets").join(name).with_extension("rs");
        assert!(program.exists(), "{}", program.display());
    }
}

#[test]
fn path_data_hold() {
    through_all("path_data", chordane_fuzz::path_data);
}

#[test]
fn documents_hold() {
    through_all("documents", chordane_fuzz::documents);
}

#[test]
fn scores_hold() {
    through_all("scores", chordane_fuzz::scores);
}

#[test]
fn rewriting_hold() {
    through_all("rewriting", chordane_fuzz::rewriting);
}

#[test]
fn metadata_hold() {
    through_all("metadata", chordane_fuzz::metadata);
}

#[test]
fn marks_hold() {
    through_all("marks", chordane_fuzz::marks);
}

#[test]
fn messages_hold() {
    through_all("messages", chordane_fuzz::messages);
}

#[test]
fn reshapes_hold() {
    through_all("reshapes", chordane_fuzz::reshapes);
}

#[test]
fn combining_hold() {
    through_all("combining", chordane_fuzz::combining);
}

#[test]
fn filling_hold() {
    through_all("filling", chordane_fuzz::filling);
}
