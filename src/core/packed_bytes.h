#pragma once

#include <atomic>
#include <cstddef>
#include <functional>
#include <memory>
#include <mutex>
#include <vector>

namespace rim {

/// A part of a job file as it lies there, made when it is asked for first, by whichever thread, and only once: a job is
/// saved often. Copying is cheap.
class PackedBytes {
 public:
  using Bytes = std::vector<std::byte>;
  PackedBytes() : held_(std::make_shared<Held>()) {}
  /// Of what came from a job file.
  explicit PackedBytes(Bytes bytes);
  /// What `pack` gives the first time; when it throws, the next call asks again.
  const Bytes& bytes(const std::function<Bytes()>& pack) const;
  /// Bytes held by now; 0 before they are packed.
  std::size_t size() const;
  /// Which of those that share them.
  const void* shared() const { return held_.get(); }

 private:
  struct Held {
    std::mutex packing;
    std::atomic<std::size_t> size = 0;
    Bytes bytes;
  };
  std::shared_ptr<Held> held_;
};

}  // namespace rim
