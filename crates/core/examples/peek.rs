use upper_lobe_core::{analysis::*, document::*};
fn main() {
    let b = Build::read(&std::fs::read_to_string(std::env::args().nth(1).unwrap()).unwrap()).unwrap_or_else(|f| panic!("{}", serde_json::to_string_pretty(&f).unwrap()));
    let s = Stages::default();
    for _ in 0..3 {
        let t = std::time::Instant::now();
        let parts = PartName::ALL[..8].to_vec();
        let _ = analyze(&b, &Request { candidate: None, parts }, &s).unwrap();
        println!("cheap {:?}", t.elapsed());
    }
    let t = std::time::Instant::now();
    let a = analyze(&b, &Request::default(), &s).unwrap();
    println!("with remedies {:?}", t.elapsed());
    for l in &a.candidates[0].limits {
        let sh = l.shown.as_ref();
        println!("{:38} {:?} need {:?} have {:?} margin {:?} {:?}", l.title, l.verdict, sh.map(|s| &s.need.inch), sh.map(|s| &s.have.inch), sh.map(|s| &s.margin.inch), l.missing);
        for r in &l.remedies { println!("      {} {} -> {} gains {} {:?}", r.label, r.from, r.to, r.gain_shown.inch, r.verdict); }
    }
    println!("{}", serde_json::to_string_pretty(&a.candidates[0].clearance).unwrap());
    println!("{}", serde_json::to_string_pretty(&a.candidates[0].control).unwrap());
    println!("{:?}", a.assumed.iter().map(|a| &a.field).collect::<Vec<_>>());
}
