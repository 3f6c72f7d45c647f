#pragma once

#include <algorithm>
#include <bit>
#include <cstddef>
#include <cstdint>
#include <cstring>
#include <span>

namespace rim {

/// Stirs a number into a hash: the finalizer of SplitMix64 (G. Steele, D. Lea and C. Flood, "Fast splittable
/// pseudorandom number generators", OOPSLA 2014; constants from memory).
inline std::uint64_t stirred(std::uint64_t hash, std::uint64_t number) {
  std::uint64_t z = (hash ^ number) + 0x9E3779B97F4A7C15U;
  z = (z ^ (z >> 30U)) * 0xBF58476D1CE4E5B9U;
  z = (z ^ (z >> 27U)) * 0x94D049BB133111EBU;
  return z ^ (z >> 31U);
}

inline std::uint64_t stirred(std::uint64_t hash, double number) {
  return stirred(hash, std::bit_cast<std::uint64_t>(number));
}

/// The same for many bytes, their number included. They tell what changed by chance, not what somebody made equal.
inline std::uint64_t stirred(std::uint64_t hash, std::span<const std::byte> bytes) {
  hash = stirred(hash, std::uint64_t{bytes.size()});
  constexpr std::size_t kWord = sizeof(std::uint64_t);
  for (std::size_t i = 0; i < bytes.size(); i += kWord) {
    std::uint64_t word = 0;
    std::memcpy(&word, &bytes[i], std::min(kWord, bytes.size() - i));
    hash = stirred(hash, word);
  }
  return hash;
}

}  // namespace rim
