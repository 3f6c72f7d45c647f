#pragma once

#include <nlohmann/json_fwd.hpp>

#include "core/job/file_wish.h"

namespace rim {

/// The file that is wanted, as an object.
nlohmann::json toJson(const FileWish& wish);

/// The wish of such an object. Throws InputError when it is none.
FileWish fileWishFrom(const nlohmann::json& json);

}  // namespace rim
