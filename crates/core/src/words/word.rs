//! What every closed list can, and how one is declared.

/// A choice of the document.
pub trait Word: Copy + PartialEq + 'static {
    /// Every word, in the order forms show them.
    const WORDS: &'static [&'static str];
    /// The word in the document.
    fn word(self) -> &'static str;
    /// The choice of that word.
    fn from_word(word: &str) -> Option<Self>;
    /// As a person reads it.
    fn spoken(self) -> String {
        self.word().replace('_', " ")
    }
}

/// Declares one closed list.
macro_rules! words {
    ($($(#[$doc:meta])* $name:ident { $($(#[$item_doc:meta])* $item:ident = $word:literal,)+ })+) => {$(
        $(#[$doc])*
        #[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
        pub enum $name { $($(#[$item_doc])* $item,)+ }

        impl $name {
            /// Every choice, in the order forms show them.
            pub const ALL: &'static [Self] = &[$(Self::$item,)+];
        }

        impl Word for $name {
            const WORDS: &'static [&'static str] = &[$($word,)+];
            fn word(self) -> &'static str {
                match self { $(Self::$item => $word,)+ }
            }
            fn from_word(word: &str) -> Option<Self> {
                match word { $($word => Some(Self::$item),)+ _ => None }
            }
        }
    )+};
}

pub(super) use words;
