#pragma once

namespace rim::test {

/// How long a test waits for what it expects before it gives up: only a fault lasts longer, even on a machine that is
/// busy with other things. SNUGRIM_SLOWER: how many times as slow the sanitizers make it.
inline constexpr int kPatienceMs = 60'000 * SNUGRIM_SLOWER;

}  // namespace rim::test
