//! An object of the document as fields with names: what reads, perturbs and measures it goes by these.

/// An object whose numbers can be named.
pub trait Fields {
    /// Its fields that are one number, SI for quantities.
    fn numbers(&self) -> Vec<(&'static str, f64)>;
    /// Changes a field that is one number; `None` when it is not given or no number.
    fn set(&mut self, key: &str, number: f64) -> Option<()>;
    /// Its fields that can spread, and how large they are.
    fn sizes(&self) -> Vec<(&'static str, f64)> {
        self.numbers()
    }
    /// Moves a field that can spread; `None` when it is not given or cannot.
    fn shift(&mut self, _key: &str, _by: f64) -> Option<()> {
        None
    }
}

/// Declares one object: its struct, its reading, and its fields by name for whoever perturbs them.
macro_rules! objects {
    ($($(#[$doc:meta])* $name:ident of $of:ident { $($key:ident: $kind:ty,)+ })+) => {$(
        $(#[$doc])*
        #[derive(Debug, Clone, PartialEq)]
        pub struct $name {
            /// Seen from.
            pub side: Side,
            /// Whether the object is there at all.
            pub is_given: bool,
            $(
                #[doc = concat!("`", stringify!($key), "`; `None` when it is neither given nor has a default.")]
                pub $key: Option<$kind>,
            )+
        }

        impl $name {
            /// Reads the object as `side` sees it.
            pub fn read(node: &Node<'_>, side: Side) -> Self {
                Self { side, is_given: node.is_given(), $($key: Value::read(node, stringify!($key)),)+ }
            }

            /// The place of one of its fields.
            pub fn at(&self, key: &'static str) -> Place {
                debug_assert!([$(stringify!($key)),+].contains(&key), "{key}");
                Place::new(Of::$of, key, self.side)
            }

        }

        impl Fields for $name {
            fn numbers(&self) -> Vec<(&'static str, f64)> {
                let all = [$((stringify!($key), self.$key.as_ref().and_then(Value::number)),)+];
                all.into_iter().filter_map(|(key, number)| Some((key, number?))).collect()
            }

            fn sizes(&self) -> Vec<(&'static str, f64)> {
                let all = [$((stringify!($key), self.$key.as_ref().and_then(Value::size)),)+];
                all.into_iter().filter_map(|(key, size)| Some((key, size?))).collect()
            }

            fn shift(&mut self, key: &str, by: f64) -> Option<()> {
                match key {
                    $(stringify!($key) => {
                        self.$key = Some(self.$key.as_ref()?.shifted(by)?);
                        Some(())
                    })+
                    _ => None,
                }
            }

            fn set(&mut self, key: &str, number: f64) -> Option<()> {
                match key {
                    $(stringify!($key) => {
                        self.$key.as_ref()?.number()?;
                        self.$key = Some(Value::from_number(number)?);
                        Some(())
                    })+
                    _ => None,
                }
            }
        }
    )+};
}
pub(super) use objects;
