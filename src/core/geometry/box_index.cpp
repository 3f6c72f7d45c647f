#include "core/geometry/box_index.h"

#include <boost/geometry.hpp>
#include <boost/geometry/geometries/box.hpp>
#include <boost/geometry/geometries/point_xy.hpp>
#include <boost/geometry/index/rtree.hpp>
#include <boost/iterator/function_output_iterator.hpp>

namespace rim {
namespace {

namespace bg = boost::geometry;
using TreePoint = bg::model::d2::point_xy<double>;
using TreeBox = bg::model::box<TreePoint>;
using TreeValue = std::pair<TreeBox, std::size_t>;

TreeBox treeBox(const Box& box, double reach) {
  return {{box.low.x - reach, box.low.y - reach}, {box.high.x + reach, box.high.y + reach}};
}

auto forward(const std::function<void(std::size_t)>& visit) {
  return boost::make_function_output_iterator([&visit](const TreeValue& v) { visit(v.second); });
}

}  // namespace

struct BoxIndex::Tree {
  bg::index::rtree<TreeValue, bg::index::linear<16>> tree;
};

BoxIndex::BoxIndex(const std::vector<Box>& boxes) : tree_(std::make_unique<Tree>()) {
  std::vector<TreeValue> values;
  values.reserve(boxes.size());
  for (std::size_t i = 0; i < boxes.size(); ++i) values.emplace_back(treeBox(boxes[i], 0), i);
  tree_->tree = decltype(tree_->tree)(values);
}

BoxIndex::~BoxIndex() = default;
BoxIndex::BoxIndex(BoxIndex&&) noexcept = default;

void BoxIndex::near(const Box& box, double reach, const std::function<void(std::size_t)>& visit) const {
  tree_->tree.query(bg::index::intersects(treeBox(box, reach)), forward(visit));
}

void BoxIndex::covering(const Box& box, const std::function<void(std::size_t)>& visit) const {
  tree_->tree.query(bg::index::covers(treeBox(box, 0)), forward(visit));
}

std::vector<std::size_t> BoxIndex::nearest(Point p, std::size_t count) const {
  std::vector<TreeValue> values;
  tree_->tree.query(bg::index::nearest(TreePoint(p.x, p.y), static_cast<unsigned>(count)), std::back_inserter(values));
  std::vector<std::size_t> found;
  const auto off = [p](const TreeValue& v) { return bg::comparable_distance(TreePoint(p.x, p.y), v.first); };
  std::sort(values.begin(), values.end(), [&off](const TreeValue& a, const TreeValue& b) { return off(a) < off(b); });
  for (const TreeValue& v : values) found.push_back(v.second);
  return found;
}

}  // namespace rim
