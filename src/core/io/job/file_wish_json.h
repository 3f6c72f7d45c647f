#pragma once

#include <nlohmann/json_fwd.hpp>

#include "core/job/file_wish.h"

namespace rim::io {

/// The file that is wanted, as an object.
nlohmann::json toJson(const job::FileWish& wish);

/// The wish of such an object. Throws InputError when it is none.
job::FileWish fileWishFrom(const nlohmann::json& json);

}  // namespace rim::io
