#include "cli/refine_steps.h"

#include <charconv>
#include <cmath>
#include <filesystem>

#include "core/error.h"
#include "core/io/read_drawing.h"

namespace rim::cli {
namespace {

using refine::Step;

constexpr double kMostMm = 1e6;

/// The numbers of a text, parted by commas; none when it is not `count` finite numbers.
std::optional<std::vector<double>> numbersIn(const std::string& text, std::size_t count) {
  std::vector<double> numbers;
  const char* at = text.data();
  const char* end = at + text.size();
  while (true) {
    double value = 0;
    if (at != end && *at == '+') ++at;
    const auto [next, error] = std::from_chars(at, end, value);
    if (error != std::errc() || !std::isfinite(value) || std::abs(value) > kMostMm) return {};
    numbers.push_back(value);
    if (next == end) break;
    if (*next != ',') return {};
    at = next + 1;
  }
  return numbers.size() == count ? std::optional(numbers) : std::nullopt;
}

template <class Enum>
std::optional<Enum> wordIn(const std::vector<std::pair<std::string, Enum>>& words, const std::string& text) {
  for (const auto& [word, value] : words) {
    if (word == text) return value;
  }
  return {};
}

template <class Enum>
std::string oneOf(const std::vector<std::pair<std::string, Enum>>& words) {
  std::string text;
  for (const auto& [word, value] : words) text += (text.empty() ? "" : ", ") + word;
  return "is one of " + text + ".";
}

const std::vector<std::pair<std::string, refine::Joins>>& joinWords() {
  static const std::vector<std::pair<std::string, refine::Joins>> kWords{
      {"round", refine::Joins::Round}, {"mitre", refine::Joins::Mitre}, {"bevel", refine::Joins::Bevel}};
  return kWords;
}
const std::vector<std::pair<std::string, refine::Tips>>& tipWords() {
  static const std::vector<std::pair<std::string, refine::Tips>> kWords{{"round", refine::Tips::Round},
                                                                        {"flat", refine::Tips::Flat}};
  return kWords;
}
const std::vector<std::pair<std::string, refine::SymmetryWish>>& symmetryWords() {
  static const std::vector<std::pair<std::string, refine::SymmetryWish>> kWords{
      {"auto", refine::SymmetryWish::Auto},
      {"mirror", refine::SymmetryWish::Mirror},
      {"turn", refine::SymmetryWish::Turn}};
  return kWords;
}
const std::vector<std::pair<std::string, refine::SymmetryFrom>>& fromWords() {
  static const std::vector<std::pair<std::string, refine::SymmetryFrom>> kWords{
      {"best", refine::SymmetryFrom::Best},   {"mean", refine::SymmetryFrom::Mean},
      {"left", refine::SymmetryFrom::Left},   {"right", refine::SymmetryFrom::Right},
      {"lower", refine::SymmetryFrom::Lower}, {"upper", refine::SymmetryFrom::Upper}};
  return kWords;
}
const std::vector<std::pair<std::string, refine::Hold>>& holdWords() {
  static const std::vector<std::pair<std::string, refine::Hold>> kWords{
      {"lower-left", refine::Hold::LowerLeft},   {"lower", refine::Hold::Lower},
      {"lower-right", refine::Hold::LowerRight}, {"left", refine::Hold::Left},
      {"centre", refine::Hold::Centre},          {"right", refine::Hold::Right},
      {"upper-left", refine::Hold::UpperLeft},   {"upper", refine::Hold::Upper},
      {"upper-right", refine::Hold::UpperRight}};
  return kWords;
}

/// The kinds of a list such as "circle,level", or "all"; none when a word is no kind.
std::optional<std::set<refine::TrueUpKind>> kindsIn(const std::string& text) {
  std::set<refine::TrueUpKind> kinds;
  for (std::size_t at = 0; at <= text.size();) {
    const std::size_t comma = std::min(text.find(',', at), text.size());
    const std::string word = text.substr(at, comma - at);
    bool known = word == "all";
    for (std::size_t k = 0; k < refine::kTrueUpKinds; ++k) {
      const auto kind = static_cast<refine::TrueUpKind>(k);
      if (word != "all" && word != refine::nameOf(kind)) continue;
      kinds.insert(kind);
      known = true;
    }
    if (!known) return {};
    at = comma + 1;
  }
  return kinds;
}

/// Adds steps; each function says what is wrong with its value.
class Adding {
 public:
  Adding(Command& command, RefineSteps& steps) : command_(command), steps_(&steps) {}

  void exactness() {
    number("--within", "MM", 1e-6, 1000, "for the steps behind it: the most that a point may move (0.3)",
           [all = steps_](double mm) { all->withinMm = mm; });
    word("--true-up", "all|KIND,…",
         "what is nearly so becomes exactly so: circle, ellipse, rectangle, "
         "rounded-rectangle, polygon, slot, straight, level, parallel, radii, concentric, spacing, tangent, repeats",
         [all = steps_](const std::string& text) -> std::string {
           const auto kinds = kindsIn(text);
           if (!kinds) return "\"" + text + "\" is no kind of shape; --help lists them.";
           return took(*all, refine::TrueUp{*kinds, all->withinMm});
         });
    number("--sharpen", "MM", 1e-6, 1000, "corners that are rounded or cut off within MM become sharp",
           [all = steps_](double mm) { all->steps.push_back(refine::Sharpen{mm}); });
    number("--fillet", "MM", 1e-6, 1e5, "sharp corners become arcs of this radius",
           [all = steps_](double mm) { all->steps.push_back(refine::FilletCorners{mm}); });
    word("--symmetry", "auto|mirror|turn", "a drawing that is nearly symmetric becomes exactly so",
         [all = steps_](const std::string& text) -> std::string {
           const auto wish = wordIn(symmetryWords(), text);
           if (!wish) return oneOf(symmetryWords());
           return took(*all, refine::Symmetrize{*wish, refine::SymmetryFrom::Best, all->withinMm});
         });
    ofLast<refine::Symmetrize>("--from", fromWords(), "of the symmetry before: whose shape counts",
                               [](refine::Symmetrize& s, refine::SymmetryFrom from) { s.from = from; });
    number("--simplify", "MM", 1e-6, 100, "fewest segments, every point within MM, no crossing made",
           [all = steps_](double mm) {
             all->steps.push_back(refine::Simplify{mm, CurveForm::Arcs});
           });
  }

  void areas() {
    command_
        .flagInTurn(
            "--unite", [all = steps_] { all->steps.push_back(refine::UniteAll{}); }, "areas that overlap become one")
        .under("Steps");
    withFile("--subtract", refine::AreaRule::Subtract, "what the areas of FILE cover is taken away");
    withFile("--intersect", refine::AreaRule::Intersect, "only what the areas of FILE cover stays");
    withFile("--exclude", refine::AreaRule::Exclude, "what only one of both covers stays");
    number("--offset", "MM", -1e5, 1e5, "closed outlines grow, or shrink when negative", [all = steps_](double mm) {
      all->steps.push_back(refine::OffsetBy{mm, refine::Joins::Round});
    });
    several("--ring", "GAP,WIDTH", 2, "adds a border ring round everything",
            [all = steps_](const std::vector<double>& v) -> std::string {
              if (v[0] <= 0 || v[1] <= 0) return "needs a gap and a width above 0.";
              return took(*all, refine::AddRing{v[0], v[1], refine::Joins::Round});
            });
    number("--thicken", "MM", 0, 1e5, "open lines become outlines so wide; 0: as wide as they were drawn",
           [all = steps_](double mm) {
             all->steps.push_back(refine::ThickenLines{mm, refine::Joins::Round, refine::Tips::Round});
           });
    joins();
    ofLast<refine::ThickenLines>("--tips", tipWords(), "of the thickening before: how lines end",
                                 [](refine::ThickenLines& s, refine::Tips tips) { s.tips = tips; });
  }

  void places() {
    number("--rotate", "DEG", -1e5, 1e5, "counter-clockwise, about the middle of the box",
           [all = steps_](double degrees) { all->steps.push_back(refine::Rotate{degrees}); });
    word("--mirror", "x|y", "swaps left and right, or top and bottom",
         [all = steps_](const std::string& text) -> std::string {
           if (text != "x" && text != "y") return "is x or y.";
           return took(*all, refine::Reflect{text == "x"});
         });
    number("--scale", "K", 1e-6, 1e6, "about the middle of the box",
           [all = steps_](double k) { all->steps.push_back(refine::ScaleBy{k}); });
    several("--place", "X,Y", 2, "a point of the box comes to X,Y", [all = steps_](const std::vector<double>& v) {
      return took(*all, refine::PlaceAt{{v[0], v[1]}, refine::Hold::LowerLeft});
    });
    ofLast<refine::PlaceAt>("--hold", holdWords(), "of the placing before: which point of the box",
                            [](refine::PlaceAt& s, refine::Hold hold) { s.hold = hold; });
    several("--fit", "W,H", 2, "as large as fits into W x H",
            [all = steps_](const std::vector<double>& v) -> std::string {
              if (v[0] <= 0 || v[1] <= 0) return "needs a width and a height above 0.";
              return took(*all, refine::FitInto{v[0], v[1]});
            });
    several("--array", "COLS,ROWS,GAPX,GAPY", 4, "copies in columns and rows",
            [all = steps_](const std::vector<double>& v) -> std::string {
              if (!isCount(v[0]) || !isCount(v[1])) return "needs whole numbers of columns and rows, from 1 on.";
              return took(*all, refine::Array{static_cast<int>(v[0]), static_cast<int>(v[1]), {v[2], v[3]}});
            });
    several("--array-round", "N,X,Y", 3, "N in all on the circle about X,Y",
            [all = steps_](const std::vector<double>& v) -> std::string {
              if (!isCount(v[0])) return "needs a whole number of copies, from 1 on.";
              return took(*all, refine::ArrayRound{static_cast<int>(v[0]), {v[1], v[2]}});
            });
  }

 private:
  static bool isCount(double value) { return value >= 1 && value <= refine::kMostCopies && value == std::floor(value); }

  static std::string took(RefineSteps& all, Step step) {
    all.steps.push_back(std::move(step));
    return {};
  }

  template <class Take>
  void word(const std::string& name, const std::string& what, const std::string& help, const Take& take) {
    command_.inTurn(name, take, help).takes(what).under("Steps");
  }

  template <class Take>
  void several(const std::string& name, const std::string& what, std::size_t count, const std::string& help,
               const Take& take) {
    word(name, what, help, [count, what, take](const std::string& text) -> std::string {
      const auto values = numbersIn(text, count);
      return values ? take(*values) : "needs " + what + ", numbers parted by commas.";
    });
  }

  template <class Take>
  void number(const std::string& name, const std::string& what, double low, double high, const std::string& help,
              const Take& take) {
    word(name, what, help, [=](const std::string& text) -> std::string {
      const auto values = numbersIn(text, 1);
      if (!values || (*values)[0] < low || (*values)[0] > high)
        return "\"" + text + "\" is no number that is possible here.";
      take((*values)[0]);
      return {};
    });
  }

  /// An option that belongs to the step that it follows.
  template <class Of, class Enum, class Take>
  void ofLast(const std::string& name, const std::vector<std::pair<std::string, Enum>>& words, const std::string& help,
              const Take& take) {
    word(name, "WORD", help + ": " + oneOf(words).substr(10),
         [=, all = steps_](const std::string& text) -> std::string {
           const auto value = wordIn(words, text);
           if (!value) return oneOf(words);
           Of* last = all->steps.empty() ? nullptr : std::get_if<Of>(&all->steps.back());
           if (last == nullptr) return "must stand behind the step that it belongs to.";
           take(*last, *value);
           return {};
         });
  }

  void joins() {
    word("--joins", "WORD", "of the offset, ring or thickening before: round, mitre or bevel corners",
         [all = steps_](const std::string& text) -> std::string {
           const auto value = wordIn(joinWords(), text);
           if (!value) return oneOf(joinWords());
           Step* last = all->steps.empty() ? nullptr : &all->steps.back();
           if (auto* offset = last == nullptr ? nullptr : std::get_if<refine::OffsetBy>(last)) {
             offset->joins = *value;
           } else if (auto* ring = last == nullptr ? nullptr : std::get_if<refine::AddRing>(last)) {
             ring->joins = *value;
           } else if (auto* thicken = last == nullptr ? nullptr : std::get_if<refine::ThickenLines>(last)) {
             thicken->joins = *value;
           } else {
             return "must stand behind --offset, --ring or --thicken.";
           }
           return {};
         });
  }

  void withFile(const std::string& name, refine::AreaRule rule, const std::string& help) {
    word(name, "FILE", help, [all = steps_, rule](const std::string& file) -> std::string {
      refine::CombineWith step{rule, nullptr, file};
      return took(*all, step);
    });
  }

  Command& command_;
  RefineSteps* steps_;
};

}  // namespace

void addRefineSteps(Command& command, RefineSteps& steps) {
  Adding adding(command, steps);
  adding.exactness();
  adding.areas();
  adding.places();
}

}  // namespace rim::cli
