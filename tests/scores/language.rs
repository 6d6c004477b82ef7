//! The language itself: what its page says, what functions see, what is printed, and what mistakes in it are told.

use chordane_score::{Limits, Run, Runner, ScoreError, Settings, words};

fn run(source: &str) -> Result<Run, ScoreError> {
    let runner = Runner::read("kite.chord", source, Limits::default())?;
    let run = runner.run(&Settings::new());
    run.sheet()?;
    Ok(run)
}

/// What a script prints.
#[track_caller]
fn printed(source: &str) -> Vec<String> {
    run(&format!("{source}\nsheet(9, 9)"))
        .unwrap_or_else(|mistake| panic!("{source}\n{mistake:?}"))
        .printed()
        .to_vec()
}

/// The mistake in a script, and its advice.
#[track_caller]
fn told(source: &str) -> (String, String) {
    let mistake = run(&format!("{source}\nsheet(9, 9)")).map(|_| panic!("{source} runs")).unwrap_err();
    (mistake.to_string(), mistake.advice().unwrap_or_default().to_owned())
}

#[test]
fn every_example_of_the_page_prints_what_stands_beside_it() {
    let mut blocks = 0;
    for part in words::LANGUAGE_MD.split("```chord\n").skip(1) {
        let block = part.split("```").next().unwrap();
        let beside = block.lines().filter(|line| line.contains("print(")).map(|line| {
            line.split_once("// ")
                .unwrap_or_else(|| panic!("{line} says nothing of what it prints"))
                .1
                .trim()
                .to_owned()
        });
        assert_eq!(printed(block), beside.collect::<Vec<_>>(), "{block}");
        blocks += 1;
    }
    assert!(blocks >= 10, "{blocks}");
}

#[test]
fn the_reserved_names_of_the_page_are_those_that_are() {
    let list = words::LANGUAGE_MD.split("used or not: ").nth(1).unwrap().split("\n\n").next().unwrap();
    let names: Vec<&str> = list.split('`').skip(1).step_by(2).collect();
    assert!(names.len() > 40);
    for name in names {
        assert!(run(&format!("let {name} = 3;\nsheet(9, 9)")).is_err(), "{name} can be used");
    }
    assert_eq!(
        told("let new = 3;"),
        ("`new` is a name that the language keeps for itself".into(), "choose another name".into())
    );
}

#[test]
fn functions_see_the_values_above_the_place_where_they_are_called() {
    let both =
        "let r = 3;\nconst K = 10;\nfn f(x) { x * r + K + floor(PI) }\nprint(f(2));\nr = 5;\nprint(f(2));\n";
    assert_eq!(printed(both), ["19", "23"]);
    let changed = "let r = 0;\nfn f() { r }\nfor i in 0..3 { r += 1; print(f()); }\nlet r = 100;\nprint([1, 2].map(|x| f() + x));";
    assert_eq!(printed(changed), ["1", "2", "3", "[101, 102]"]);
    // Their own values and what they are given go before.
    assert_eq!(
        printed(
            "let r = 3; let i = 9;\nfn f(r) { let i = 1; for k in 0..2 { i += k; } r + i }\nprint(f(10), r, i);"
        ),
        ["12 3 9"]
    );
    // A sheet that stands above can be added to, and a function may call another, and itself.
    let drawn = run("let page = sheet(90, 60);\nlet r = 4;\nfn dot(x) { page.add(circle([x, 30], r).fill(\"teal\")); }\nfn row(n) { if n > 0 { dot(n * 10); row(n - 1); } }\nrow(4);\npage").unwrap();
    assert_eq!(drawn.sheet().unwrap().items().len(), 4);
    let (message, advice) = told("fn f(x) { x * later }\nprint(f(1));\nlet later = 3;");
    assert_eq!(
        message,
        "`later` is not known here: it is made further down, or within braces that end before"
    );
    assert_eq!(advice, "make it above: let later = ..");
    // An early end ends the score.
    let ended =
        run("let n = 3;\nfn g() { n }\nif n == 3 { return sheet(g(), 9); }\nprint(1);\nsheet(1, 1)").unwrap();
    assert_eq!((ended.sheet().unwrap().size.x, ended.printed().len()), (3.0, 0));
}

#[test]
fn steps_are_counted_over_all_of_a_script_that_runs_in_parts() {
    let loops = "for i in 0..2000 { g(); }\n".repeat(20);
    let loops = format!("let q = 1;\nfn g() {{ q }}\n{loops}sheet(9, 9)");
    let with =
        |steps| Runner::read("kite.chord", loops.as_str(), Limits { steps, ..Limits::default() }).unwrap();
    assert!(with(10_000_000).run(&Settings::new()).sheet().is_ok());
    let stopped = with(100_000).run(&Settings::new()).sheet().map(|_| ()).unwrap_err();
    assert_eq!(stopped.to_string(), "the score takes more than 100000 steps");
}

#[test]
fn any_value_is_printed_and_joined_to_a_text() {
    assert_eq!(
        printed("print(\"a\", 3, 2.5, pt(1, 2), [1, pt(1, 2), \"x\"], deg(30), true);"),
        ["a 3 2.5 pt(1, 2) [1, pt(1, 2), x] deg(30) true"]
    );
    assert_eq!(
        printed("print([circle(pt(0, 0), 1)]); print(circle(pt(0, 0), 1), sheet(9, 9));"),
        ["[a path]", "a path a sheet"]
    );
    assert_eq!(
        printed("print(\"at \" + pt(1, 2) + \" \" + [1, 2] + true + deg(4)); print(pt(1, 2) + \" is it\");"),
        ["at pt(1, 2) [1, 2]truedeg(4)", "pt(1, 2) is it"]
    );
    assert_eq!(
        printed("print(`at ${pt(1, 2)}, ${[1, pt(0, 0)]}, ${deg(5)}`);"),
        ["at pt(1, 2), [1, pt(0, 0)], deg(5)"]
    );
}

#[test]
fn mistakes_of_the_language_are_told_in_plain_words() {
    for (source, message, advice) in [
        (
            "let f = |x| x; print(f(3));",
            "`f` is a value with a name, and not a word that can be called",
            "if it is a function, write f.call(..); fn f(..) { .. } makes a word of it",
        ),
        (
            "for i in 5 { }",
            "a loop goes over a range or a list, and this is neither",
            "write for i in 0..5, or for one in list",
        ),
        (
            "if 3 { print(1) }",
            "true or false is needed here, and this is a number",
            "compare it, as in x > 0",
        ),
        (
            "print(\"red\".hue);",
            "a text has no `hue`",
            "write hsl(hue, saturation, lightness); colour.hsl() reads them back",
        ),
        ("print(pt(1, 2).z);", "a point has no `z`", ""),
        ("const k = 3; k = 4;", "`k` was made with const and cannot be changed", "make it with let"),
        ("let a = (3 + 4;", "`)` is missing: this `(` is not closed", "write `)` before the `;`"),
        (
            "let sail = circle(pt(0, 0), 30;\nlet bow = 3;\nsheet(9, 9)",
            "`)` is missing: this `(` is not closed",
            "write `)` before the `;`",
        ),
        (
            "let sail = closed([[0, 0], [9, 0],\n    [9, 9])\nlet bow = 3;\nsheet(9, 9)",
            "`]` is missing: this `[` is not closed",
            "write `]` before the `)` in line 2",
        ),
        (
            "print([1][4]);",
            "there is no place 4 in a list of 1 value",
            "places are counted from 0, and from -1 at the end",
        ),
        ("print(\"a\" - 3);", "`-` does not work on a text and a number", ""),
        ("print(atan2(1, 2));", "there is no word `atan2`", "write atan(y, x)"),
        ("print(rect(1, 2));", "there is no word `rect`", "write rectangle(corner, width, height)"),
        ("print(lerp(1, 2, 0.5));", "there is no word `lerp`", "write rescale(value, [0, 1], [low, high])"),
        (
            "let c = circle(pt(0, 0), part(0.25));",
            "`circle` wants a number for its radius, and was given an extent",
            "a share is of a length: write that length times the share, as in cell.size().x * 0.25",
        ),
        ("sleep(1);", "there is no word `sleep`", ""),
        ("sleep(0.5);", "there is no word `sleep`", ""),
        ("print(tau);", "there is nothing called `tau`", "write turns(1), or 2 * PI for the number"),
    ] {
        assert_eq!(told(source), (message.to_owned(), advice.to_owned()), "{source}");
    }
}

/// What is advised for another name is a word that there is, and is never that name itself.
#[test]
fn what_is_meant_by_other_names_exists() {
    let written = [
        "rect",
        "disc",
        "bezier",
        "translate",
        "mirror",
        "subtract",
        "random",
        "noise",
        "distance",
        "power",
        "slider",
        "contains",
    ];
    for name in written {
        let (_, advice) = told(&format!("print({name}(1));"));
        let is_known = words::all().any(|word| advice.contains(&format!("{}(", word.name)));
        assert!(advice.starts_with("write ") && is_known, "{name}: {advice}");
        assert!(words::named(name).next().is_none(), "{name} is a word itself");
    }
}

#[test]
fn lettering_takes_numbers_and_says_what_it_lacks() {
    let drawn = |text: &str| {
        run(&format!("sheet(99, 99).add(lettering({text}, [5, 50], 9).stroke(\"black\", 1))")).unwrap()
    };
    assert_eq!(drawn("7.5").sheet().unwrap(), drawn("\"7.5\"").sheet().unwrap());
    assert_eq!(drawn("\"Größe → λ\"").remarks(), [] as [String; 0]);
    assert_eq!(drawn("\"sail 帆 7 帆 凧\"").remarks(), ["lettering has no 帆 凧, and leaves that blank"]);
    assert_eq!(drawn("\"Sail 7\"").remarks(), [] as [String; 0]);
}

#[test]
fn what_is_given_and_not_used_is_remarked_on() {
    for (made, remark) in [
        (
            "through([[0, 0], [40, 30], [80, 0]]).led([0, -50], [90, 9]).close()",
            "the guides of `led` are not used: a closed curve has no ends; end it with .open() to use them",
        ),
        (
            "cell([0, 0], 40, 30).inset(25).path()",
            "`inset` leaves nothing of a cell: 50 is taken from its width of 40",
        ),
        (
            "cell([0, 0], 40, 30).inset(0, part(0.5) + 20).path()",
            "`inset` leaves nothing of a cell: 70 is taken from its height of 30",
        ),
    ] {
        let run = run(&format!("sheet(99, 99).add({made}.stroke(\"black\", 1))")).unwrap();
        assert!(run.remarks().iter().any(|told| told == remark), "{made}: {:?}", run.remarks());
    }
    for made in [
        "through([[0, 0], [40, 30], [80, 0]]).led([0, -50], [90, 9]).open()",
        "cell([0, 0], 40, 30).inset(10).path()",
        "cell([0, 0], 0, 30).inset(10).path()",
        "cell([0, 0], 40, 30).inset(-10).path()",
    ] {
        let run = run(&format!("sheet(99, 99).add({made}.stroke(\"black\", 1))")).unwrap();
        assert_eq!(run.remarks(), [] as [String; 0], "{made}");
    }
}

#[test]
fn a_range_too_long_for_a_list_is_told() {
    let (message, advice) = told("let all = (0..2000000).map(|i| i);");
    assert_eq!(message, "the range has more than 1000000 numbers, which is too long a list");
    assert_eq!(advice, "make it shorter, or raise the limit");
    assert_eq!(printed("print((5..2).map(|i| i), (3..3).filter(|i| true));"), ["[] []"]);
    let (message, _) = told("print((0..3).map(|i| sag * i));");
    assert_eq!(message, "there is nothing called `sag`");
}
