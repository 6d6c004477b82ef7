//! What runs hold, counted for the tests of limits.

use std::alloc::System;

use alloc_metrics::{MetricAlloc, thread_metrics};
use chordane_score::{Gauge, Limits, Runner, Settings};

#[global_allocator]
static ALLOCATOR: MetricAlloc<System> = MetricAlloc::new(System);

/// A run may hold this many megabytes, by what its own thread allocates.
pub(crate) fn megabytes(most: usize) -> Limits {
    let gauge = Gauge { thread: || thread_metrics().allocated_bytes, process: || 0 };
    Limits { memory: most << 20, gauge: Some(gauge), ..Limits::default() }
}

fn told(source: &str, limits: Limits) -> Option<String> {
    let run = Runner::read("hold.chord", source, limits).unwrap().run(&Settings::new());
    run.into_sheet().err().map(|mistake| mistake.to_string())
}

/// The same score with the same limit passes or fails alike alone and beside others: memory means what this run holds.
#[test]
fn memory_is_counted_run_by_run() {
    let holding = |megabytes: usize| {
        format!(
            "let all = [];\nfor i in 0..{megabytes} {{ all.push(polygon([0, 0], 60000, i + 1)); }}\n\
             let spin = 0;\nwhile spin < 5000 {{ spin += 1; }}\nsheet(9, 9).add(all[0].stroke(\"teal\", 1))"
        )
    };
    let limits = megabytes(48);
    let (little, much) = (holding(10), holding(60));
    assert_eq!(told(&little, limits), None);
    assert_eq!(told(&much, limits).as_deref(), Some("the score takes more than 48 MB of memory"));
    // Eight at once hold far more than 48 MB together, and what they leave is kept meanwhile.
    let little = Runner::read("little.chord", little, limits).unwrap();
    let runs: Vec<_> = std::thread::scope(|scope| {
        let threads: Vec<_> = (0..8)
            .map(|_| scope.spawn(|| (0..3).map(|_| little.run(&Settings::new())).collect::<Vec<_>>()))
            .collect();
        threads.into_iter().flat_map(|thread| thread.join().unwrap()).collect()
    });
    for run in &runs {
        assert!(run.sheet().is_ok(), "{:?}", run.sheet());
    }
    assert!(told(&much, limits).is_some());
}

/// Without a gauge the large values that words make count, and nothing that the program holds.
#[test]
fn without_a_gauge_no_score_is_blamed_for_its_program() {
    let limits = Limits { memory: 48 << 20, ..Limits::default() };
    let held = std::thread::scope(|scope| {
        let hoard = scope.spawn(|| (0..400).map(|_| vec![1_u8; 1 << 20]).collect::<Vec<_>>());
        let small = "let spin = 0; while spin < 200000 { spin += 1; } sheet(9, 9)";
        assert_eq!(told(small, limits), None);
        hoard.join().unwrap()
    });
    assert_eq!(held.len(), 400);
    let much = "for i in 0..60 { polygon([0, 0], 60000, i + 1); } sheet(9, 9)";
    let kept = "let all = []; for i in 0..60 { all.push(polygon([0, 0], 60000, i + 1)); } sheet(9, 9)";
    for source in [much.replace("polygon", "let p = polygon"), kept.to_owned()] {
        assert_eq!(
            told(&source, limits).as_deref(),
            Some("the score takes more than 48 MB of memory"),
            "{source}"
        );
    }
}
