#pragma once

namespace rim {

/// Several callables as one, for std::visit: each alternative of a variant goes to the one that takes it.
template <typename... Cases>
struct Overloaded : Cases... {
  using Cases::operator()...;
};
template <typename... Cases>
Overloaded(Cases...) -> Overloaded<Cases...>;

}  // namespace rim
