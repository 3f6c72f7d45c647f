#include "core/trace/fit/polish.h"

#include <Eigen/Cholesky>
#include <array>

#include "core/trace/fit/curve_fit.h"

namespace rim::trace::fit {
namespace {

constexpr int kPolishRounds = 12;
constexpr std::size_t kMostAtOnce = 10;

/// A node with the direction and the lengths of the handles on both sides of it.
struct Joint {
  Point place;
  double angle = 0;  ///< radians
  double before = 0;
  double after = 0;
};

Point direction(double angle) { return {std::cos(angle), std::sin(angle)}; }

/// What moves a place of one cubic: some of the unknowns, in an order that is the same for all its places.
struct Row {
  static constexpr std::size_t kMost = 8;  // four of the node on either side
  std::array<Eigen::Index, kMost> unknown{};
  std::array<double, kMost> slope{};
  std::size_t count = 0;

  void add(Eigen::Index i, double value) {
    unknown[count] = i;
    slope[count++] = value;
  }
};

/// The numbers that are sought of one window of a run, and how they make its cubics.
class Window {
 public:
  Window(const SmoothRun& run, std::size_t from, std::size_t count) : run_(&run), from_(from), count_(count) {
    for (std::size_t j = 0; j + 1 < count; ++j) {
      const Cubic& left = run.cubics[from + j];
      const Cubic& right = run.cubics[from + j + 1];
      const Point along = unit(unit(left.p3 - left.p2) + unit(right.p1 - right.p0));
      joints_.push_back(
          {left.p3, std::atan2(along.y, along.x), distance(left.p2, left.p3), distance(right.p0, right.p1)});
    }
    const Cubic& first = run.cubics[from];
    const Cubic& last = run.cubics[from + count - 1];
    start_ = first.p0;
    end_ = last.p3;
    startHandle_ = first.p1 - first.p0;
    endHandle_ = last.p2 - last.p3;
    // Within a run the window's outer cubics keep the tangents that they share with those beyond.
    startTangent_ = from == 0 ? run.startTangent : std::optional(unit(startHandle_));
    endTangent_ = from + count == run.cubics.size() ? run.endTangent : std::optional(unit(-endHandle_));
    startSlides_ = from == 0 && startTangent_ && run.startSlides;
    endSlides_ = from + count == run.cubics.size() && endTangent_ && run.endSlides;
    if (startTangent_) startHandle_ = *startTangent_ * length(startHandle_);
    if (endTangent_) endHandle_ = -*endTangent_ * length(endHandle_);
  }

  Eigen::Index unknowns() const { return static_cast<Eigen::Index>(4 + 5 * joints_.size()); }

  std::vector<Cubic> cubics() const {
    std::vector<Cubic> cubics(count_);
    for (std::size_t k = 0; k < count_; ++k) {
      Cubic& c = cubics[k];
      c.p0 = k == 0 ? start_ : joints_[k - 1].place;
      c.p1 = c.p0 + (k == 0 ? startHandle_ : direction(joints_[k - 1].angle) * joints_[k - 1].after);
      c.p3 = k + 1 == count_ ? end_ : joints_[k].place;
      c.p2 = c.p3 + (k + 1 == count_ ? endHandle_ : direction(joints_[k].angle) * -joints_[k].before);
    }
    return cubics;
  }

  /// How the place at parameter t of cubic k moves with each unknown, seen along `axis`.
  Row derivatives(std::size_t k, double t, Point axis) const {
    Row out;
    const double s = 1 - t;
    const double b0 = s * s * s, b1 = 3 * s * s * t, b2 = 3 * s * t * t, b3 = t * t * t;
    if (k == 0) {
      if (startTangent_) {
        out.add(0, b1 * dot(*startTangent_, axis));
        if (startSlides_) out.add(1, (b0 + b1) * dot(*startTangent_, axis));
      } else {
        out.add(0, b1 * axis.x);
        out.add(1, b1 * axis.y);
      }
    } else {
      joint(k - 1, b0 + b1, b1 * joints_[k - 1].after, 4, b1, axis, out);
    }
    if (k + 1 == count_) {
      if (endTangent_) {
        out.add(2, -b2 * dot(*endTangent_, axis));
        if (endSlides_) out.add(3, (b3 + b2) * dot(*endTangent_, axis));
      } else {
        out.add(2, b2 * axis.x);
        out.add(3, b2 * axis.y);
      }
    } else {
      joint(k, b3 + b2, -b2 * joints_[k].before, 3, -b2, axis, out);
    }
    return out;
  }

  Window moved(const Eigen::VectorXd& step) const {
    Window w = *this;
    w.startHandle_ = startHandle_ + (startTangent_ ? *startTangent_ * step(0) : Point{step(0), step(1)});
    w.endHandle_ = endHandle_ + (endTangent_ ? *endTangent_ * -step(2) : Point{step(2), step(3)});
    if (startSlides_) w.start_ = start_ + *startTangent_ * step(1);
    if (endSlides_) w.end_ = end_ + *endTangent_ * step(3);
    for (std::size_t j = 0; j < joints_.size(); ++j) {
      const auto at = static_cast<Eigen::Index>(4 + 5 * j);
      Joint& joint = w.joints_[j];
      joint.place = joint.place + Point{step(at), step(at + 1)};
      joint.angle += step(at + 2);
      joint.before += step(at + 3);
      joint.after += step(at + 4);
    }
    return w;
  }

  /// Handles point forwards and are no longer than the chord.
  bool isSensible() const {
    for (const Cubic& c : cubics()) {
      const double chord = distance(c.p0, c.p3);
      const double first = distance(c.p0, c.p1);
      const double second = distance(c.p2, c.p3);
      if (!(first > 0.02 * chord && second > 0.02 * chord && first < 1.5 * chord && second < 1.5 * chord)) return false;
    }
    const bool handles =
        std::all_of(joints_.begin(), joints_.end(), [](const Joint& j) { return j.before > 0 && j.after > 0; });
    const bool starts = !startTangent_ || dot(startHandle_, *startTangent_) > 0;
    const bool ends = !endTangent_ || dot(endHandle_, *endTangent_) < 0;
    return handles && starts && ends;
  }

  std::span<const Point> points(std::size_t k) const { return run_->points[from_ + k]; }
  double weight(std::size_t k) const { return run_->weights[from_ + k]; }
  std::size_t count() const { return count_; }

 private:
  void joint(std::size_t j, double ofPlace, double ofAngle, int handle, double ofHandle, Point axis, Row& out) const {
    const auto at = static_cast<Eigen::Index>(4 + 5 * j);
    const Point along = direction(joints_[j].angle);
    out.add(at, ofPlace * axis.x);
    out.add(at + 1, ofPlace * axis.y);
    out.add(at + 2, ofAngle * dot(leftNormal(along), axis));
    out.add(at + handle, ofHandle * dot(along, axis));
  }

  const SmoothRun* run_;
  std::size_t from_;
  std::size_t count_;
  std::vector<Joint> joints_;
  Point start_, end_, startHandle_, endHandle_;
  std::optional<Point> startTangent_, endTangent_;
  bool startSlides_ = false, endSlides_ = false;
};

using Parameters = std::vector<std::vector<double>>;

/// The weighted sum of squared distances; parameters follow the curves.
double misfit(const Window& window, const std::vector<Cubic>& cubics, Parameters& parameters) {
  double sum = 0;
  for (std::size_t k = 0; k < window.count(); ++k) {
    const auto points = window.points(k);
    improveParameters(cubics[k], points, parameters[k]);
    improveParameters(cubics[k], points, parameters[k]);
    const CubicPolynomial curve(cubics[k]);
    for (std::size_t i = 0; i < points.size(); ++i) {
      const Point off = curve.at(parameters[k][i]) - points[i];
      sum += window.weight(k) * dot(off, off);
    }
  }
  return sum;
}

struct NormalEquations {
  Eigen::MatrixXd normal;  ///< symmetric: its lower half only
  Eigen::VectorXd right;
};

/// The sums over one cubic's points.
class CubicSums {
 public:
  void add(const Row& row, double weight, double off) {
    last_ = row;
    for (std::size_t a = 0; a < row.count; ++a) {
      const double weighted = weight * row.slope[a];
      right_[a] += weighted * off;
      for (std::size_t b = 0; b <= a; ++b) normal_[a][b] += weighted * row.slope[b];
    }
  }

  void addTo(NormalEquations& e) const {
    for (std::size_t a = 0; a < last_.count; ++a) {
      const Eigen::Index i = last_.unknown[a];
      e.right(i) += right_[a];
      for (std::size_t b = 0; b <= a; ++b) {
        const Eigen::Index j = last_.unknown[b];
        e.normal(std::max(i, j), std::min(i, j)) += normal_[a][b];
      }
    }
  }

 private:
  Row last_;
  std::array<double, Row::kMost> right_{};
  std::array<std::array<double, Row::kMost>, Row::kMost> normal_{};
};

NormalEquations equations(const Window& window, const std::vector<Cubic>& cubics, const Parameters& parameters) {
  const Eigen::Index n = window.unknowns();
  NormalEquations e{Eigen::MatrixXd::Zero(n, n), Eigen::VectorXd::Zero(n)};
  for (std::size_t k = 0; k < window.count(); ++k) {
    const auto points = window.points(k);
    const CubicPolynomial curve(cubics[k]);
    CubicSums sums;
    for (std::size_t i = 0; i < points.size(); ++i) {
      const double t = parameters[k][i];
      const Point across = unit(leftNormal(curve.derivative(t)));
      const double off = dot(points[i] - curve.at(t), across);
      sums.add(window.derivatives(k, t, across), window.weight(k), off);
    }
    sums.addTo(e);
  }
  return e;
}

Window best(Window window) {
  Parameters parameters;
  std::vector<Cubic> cubics = window.cubics();
  for (std::size_t k = 0; k < window.count(); ++k) parameters.push_back(nearestParameters(cubics[k], window.points(k)));
  double now = misfit(window, cubics, parameters);
  double damping = 1e-2;
  for (int round = 0; round < kPolishRounds; ++round) {
    NormalEquations e = equations(window, cubics, parameters);
    const double floor = 1e-9 * e.normal.trace();
    for (Eigen::Index k = 0; k < window.unknowns(); ++k) e.normal(k, k) += damping * e.normal(k, k) + floor;
    const Window next = window.moved(e.normal.ldlt().solve(e.right));
    if (!next.isSensible()) {
      damping *= 100;
      continue;
    }
    Parameters moved = parameters;
    const std::vector<Cubic> tried = next.cubics();
    const double then = misfit(next, tried, moved);
    if (!(then < now)) {
      damping *= 10;
      continue;
    }
    const bool settled = then > 0.99 * now;
    window = next;
    cubics = tried;
    parameters = std::move(moved);
    now = then;
    damping /= 10;
    if (settled) break;
  }
  return window;
}

std::vector<Cubic> polishedOpen(SmoothRun& run) {
  const std::size_t n = run.cubics.size();
  std::size_t from = 0;
  while (from < n) {
    const std::size_t count = std::min(kMostAtOnce, n - from);
    const std::vector<Cubic> window = best(Window(run, from, count)).cubics();
    std::copy(window.begin(), window.end(), run.cubics.begin() + static_cast<std::ptrdiff_t>(from));
    if (from + count == n) break;
    // The last cubic of a window belongs to the next one too: its inner node moves with that.
    from += count - 1;
  }
  return run.cubics;
}

/// Round a closed run: where it is cut the first time is within a window the second time.
std::vector<Cubic> polishedClosed(SmoothRun& run) {
  const auto turn = [&run](std::size_t by) {
    const auto rotate = [by](auto& list) {
      std::rotate(list.begin(), list.begin() + static_cast<std::ptrdiff_t>(by), list.end());
    };
    rotate(run.cubics);
    rotate(run.points);
    rotate(run.weights);
  };
  const std::size_t n = run.cubics.size();
  const std::size_t half = n / 2;
  for (const std::size_t by : {half, n - half}) {
    const Point shared = unit(tangent(run.cubics.back(), 1) + tangent(run.cubics.front(), 0));
    run.startTangent = run.endTangent = shared;
    run.cubics = polishedOpen(run);
    if (n > 1) turn(by);
  }
  return run.cubics;
}

}  // namespace

std::vector<Cubic> polished(SmoothRun run) { return run.closed ? polishedClosed(run) : polishedOpen(run); }

}  // namespace rim::trace::fit
