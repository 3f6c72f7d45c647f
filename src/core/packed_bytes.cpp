#include "core/packed_bytes.h"

#include <utility>

namespace rim {

PackedBytes::PackedBytes(Bytes bytes) : PackedBytes() {
  held_->size = bytes.size();
  held_->bytes = std::move(bytes);
}

const PackedBytes::Bytes& PackedBytes::bytes(const std::function<Bytes()>& pack) const {
  const std::lock_guard lock(held_->packing);
  if (held_->bytes.empty()) {
    held_->bytes = pack();
    held_->size = held_->bytes.size();
  }
  return held_->bytes;
}

std::size_t PackedBytes::size() const { return held_->size; }

}  // namespace rim
