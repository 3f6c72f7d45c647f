#include "app/steps/refine/refine_text.h"

#include <QCoreApplication>

#include "app/widgets/counted.h"
#include "core/overloaded.h"

namespace rim::app {
namespace {

using namespace refine;

QString text(const char* source) { return QCoreApplication::translate("Refine", source); }

constexpr double kMostMm = 10'000;
constexpr double kLeastMm = 0.01;
constexpr double kMostCopiesTyped = 1000;

RefineNumber length(const char* name, double mm, double low = kLeastMm, double high = kMostMm) {
  return {text(name), mm, low, high, true, {}};
}
RefineNumber plain(const char* name, double value, double low, double high, const QString& unit = {}) {
  return {text(name), value, low, high, false, unit};
}

/// The numbers of a step, to be read and written alike.
template <class Visit>
void eachNumber(Step& step, const Visit& visit) {
  std::visit(Overloaded{[&](TrueUp& s) { visit(length("within", s.withinMm), s.withinMm); },
                        [&](Symmetrize& s) { visit(length("within", s.withinMm), s.withinMm); },
                        [&](Sharpen& s) { visit(length("missing up to", s.missingMm), s.missingMm); },
                        [&](FilletCorners& s) { visit(length("radius", s.radiusMm), s.radiusMm); },
                        [&](Simplify& s) { visit(length("within", s.withinMm, 0.001), s.withinMm); },
                        [](UniteAll&) {},
                        [](CombineWith&) {},
                        [&](OffsetBy& s) { visit(length("by", s.mm, -kMostMm), s.mm); },
                        [&](AddRing& s) {
                          visit(length("gap", s.gapMm), s.gapMm);
                          visit(length("width", s.widthMm), s.widthMm);
                        },
                        [&](ThickenLines& s) { visit(length("to", s.mm, 0), s.mm); },
                        [&](StrokesTo& s) { visit(length("up to", s.widestMm), s.widestMm); },
                        [&](Rotate& s) { visit(plain("by", s.degrees, -360, 360, QStringLiteral("°")), s.degrees); },
                        [](Reflect&) {},
                        [&](ScaleBy& s) { visit(plain("times", s.factor, 0.001, 1000), s.factor); },
                        [&](PlaceAt& s) {
                          visit(length("x", s.at.x, -kMostMm), s.at.x);
                          visit(length("y", s.at.y, -kMostMm), s.at.y);
                        },
                        [&](FitInto& s) {
                          visit(length("width", s.widthMm), s.widthMm);
                          visit(length("height", s.heightMm), s.heightMm);
                        },
                        [&](Array& s) {
                          visit(plain("columns", s.columns, 1, kMostCopiesTyped), s.columns);
                          visit(plain("rows", s.rows, 1, kMostCopiesTyped), s.rows);
                          visit(length("gap", s.gapsMm.x, -kMostMm), s.gapsMm.x);
                          visit(length("gap upwards", s.gapsMm.y, -kMostMm), s.gapsMm.y);
                        },
                        [&](ArrayRound& s) {
                          visit(plain("copies", s.count, 1, kMostCopiesTyped), s.count);
                          visit(length("x", s.centre.x, -kMostMm), s.centre.x);
                          visit(length("y", s.centre.y, -kMostMm), s.centre.y);
                        },
                        [](Remove&) {},
                        [](Replace&) {},
                        [](ByHand&) {},
                        [](EditLayer&) {},
                        [](HideLayer&) {},
                        [](PutOnLayer&) {},
                        [](LockLayer&) {},
                        [](MoveLayer&) {},
                        [](Group&) {}},
             step);
}

QStringList joinWords() { return {text("round corners"), text("mitred corners"), text("bevelled corners")}; }

}  // namespace

QString trueUpText(TrueUpKind kind) {
  switch (kind) {
    case TrueUpKind::Circle:
      return text("Nearly circles");
    case TrueUpKind::Ellipse:
      return text("Nearly ellipses");
    case TrueUpKind::Rectangle:
      return text("Nearly rectangles");
    case TrueUpKind::RoundedRectangle:
      return text("Nearly rounded rectangles");
    case TrueUpKind::Polygon:
      return text("Nearly regular polygons");
    case TrueUpKind::Slot:
      return text("Nearly slots");
    case TrueUpKind::Straight:
      return text("Nearly straight");
    case TrueUpKind::Level:
      return text("Nearly level or upright");
    case TrueUpKind::Parallel:
      return text("Nearly parallel or square");
    case TrueUpKind::Radii:
      return text("Nearly equal radii");
    case TrueUpKind::Concentric:
      return text("Nearly one centre");
    case TrueUpKind::Spacing:
      return text("Nearly evenly spaced");
    case TrueUpKind::Tangent:
      return text("Lines that nearly touch arcs");
    case TrueUpKind::Repeats:
      return text("Parts that are nearly one part");
  }
  return {};
}

QString refineName(const Step& step) {
  return std::visit(
      Overloaded{
          [](const TrueUp& s) {
            return s.kinds.size() == 1 ? trueUpText(*s.kinds.begin()) + text(": made exact") : text("True up all");
          },
          [](const Symmetrize&) { return text("Symmetry"); },
          [](const Sharpen&) { return text("Sharpen corners"); },
          [](const FilletCorners&) { return text("Round corners"); },
          [](const Simplify&) { return text("Fewer nodes"); },
          [](const UniteAll&) { return text("Unite"); },
          [](const CombineWith& s) { return text("Combine with %1").arg(QString::fromStdString(s.name)); },
          [](const OffsetBy&) { return text("Offset"); },
          [](const AddRing&) { return text("Border ring"); },
          [](const ThickenLines&) { return text("Thicken lines"); },
          [](const StrokesTo&) { return text("One line for each stroke"); },
          [](const Rotate&) { return text("Rotate"); },
          [](const Reflect& s) { return s.leftRight ? text("Mirror left and right") : text("Mirror top and bottom"); },
          [](const ScaleBy&) { return text("Scale"); },
          [](const PlaceAt&) { return text("Place"); },
          [](const FitInto&) { return text("Fit into"); },
          [](const Array&) { return text("Rows of copies"); },
          [](const ArrayRound&) { return text("Copies on a circle"); },
          [](const Remove& s) {
            return text("Delete %1").arg(counted(s.outlines.size(), text("1 outline"), text("%1 outlines")));
          },
          [](const EditLayer& s) {
            return text("Layer %1: another name or colour").arg(QString::fromStdString(s.name));
          },
          [](const HideLayer& s) { return text("Hide layer %1").arg(QString::fromStdString(s.name)); },
          [](const PutOnLayer& s) {
            return text("On layer %1: %2")
                .arg(QString::fromStdString(s.layer.name),
                     counted(s.outlines.size(), text("1 outline"), text("%1 outlines")));
          },
          [](const LockLayer& s) { return text("Lock layer %1").arg(QString::fromStdString(s.name)); },
          [](const MoveLayer& s) { return text("Move layer %1").arg(QString::fromStdString(s.name)); },
          [](const Group& s) {
            const QString what = counted(s.outlines.size(), text("1 outline"), text("%1 outlines"));
            return (s.together ? text("Group %1") : text("Ungroup %1")).arg(what);
          },
          [](const ByHand& s) {
            return text("By hand: %1").arg(counted(s.changes.size(), text("1 change"), text("%1 changes")));
          },
          [](const Replace& s) {
            const QString kind = s.kind == "moved" ? text("Move") : text("Make exact");
            return text("%1: %2").arg(kind, counted(s.outlines.size(), text("1 outline"), text("%1 outlines")));
          }},
      step);
}

std::vector<RefineNumber> refineNumbers(const Step& step) {
  std::vector<RefineNumber> numbers;
  Step copy = step;
  eachNumber(copy, [&numbers](const RefineNumber& number, auto&) { numbers.push_back(number); });
  return numbers;
}

Step withRefineNumber(Step step, std::size_t which, double value) {
  std::size_t i = 0;
  eachNumber(step, [&](const RefineNumber& number, auto& field) {
    if (i++ != which) return;
    field = static_cast<std::remove_reference_t<decltype(field)>>(std::clamp(value, number.low, number.high));
  });
  return step;
}

RefineChoice refineChoice(const Step& step) {
  const auto joins = [](Joins chosen) { return RefineChoice{text("Corners"), joinWords(), static_cast<int>(chosen)}; };
  if (const auto* s = std::get_if<OffsetBy>(&step)) return joins(s->joins);
  if (const auto* s = std::get_if<AddRing>(&step)) return joins(s->joins);
  if (const auto* s = std::get_if<ThickenLines>(&step))
    return {text("Tips"), {text("round tips"), text("flat tips")}, static_cast<int>(s->tips)};
  if (const auto* s = std::get_if<StrokesTo>(&step))
    return {text("Which line stays"),
            {text("outer edge"), text("inner edge"), text("middle")},
            static_cast<int>(s->keep) - static_cast<int>(DoubleRule::Outer)};
  if (const auto* s = std::get_if<Symmetrize>(&step))
    return {text("Whose shape counts"),
            {text("the cleaner part"), text("the mean"), text("the left"), text("the right"), text("the lower"),
             text("the upper")},
            static_cast<int>(s->from)};
  if (const auto* s = std::get_if<PlaceAt>(&step))
    return {text("Which point comes there"),
            {text("lower left"), text("lower middle"), text("lower right"), text("left middle"), text("centre"),
             text("right middle"), text("upper left"), text("upper middle"), text("upper right")},
            static_cast<int>(s->hold)};
  return {};
}

Step withRefineChoice(Step step, int chosen) {
  if (auto* s = std::get_if<OffsetBy>(&step)) s->joins = static_cast<Joins>(chosen);
  if (auto* s = std::get_if<AddRing>(&step)) s->joins = static_cast<Joins>(chosen);
  if (auto* s = std::get_if<ThickenLines>(&step)) s->tips = static_cast<Tips>(chosen);
  if (auto* s = std::get_if<StrokesTo>(&step))
    s->keep = static_cast<DoubleRule>(chosen + static_cast<int>(DoubleRule::Outer));
  if (auto* s = std::get_if<Symmetrize>(&step)) s->from = static_cast<SymmetryFrom>(chosen);
  if (auto* s = std::get_if<PlaceAt>(&step)) s->hold = static_cast<Hold>(chosen);
  return step;
}

std::vector<Step> refineSteps(const Box& box) {
  const double size = box.empty() ? 100 : std::max(box.width(), box.height());
  const auto nice = [](double mm) { return std::max(0.1, std::round(mm * 10) / 10); };
  constexpr double kShare = 0.03;
  return {
      Sharpen{0.5},
      FilletCorners{nice(kShare * size)},
      Symmetrize{},
      Simplify{0.05, CurveForm::Arcs},
      UniteAll{},
      OffsetBy{nice(kShare * size / 2), Joins::Round},
      AddRing{nice(kShare * size), nice(kShare * size), Joins::Round},
      ThickenLines{2, Joins::Round, Tips::Round},
      StrokesTo{DoubleRule::Centre, 3},
      Rotate{90},
      Reflect{true},
      Reflect{false},
      ScaleBy{2},
      PlaceAt{{0, 0}, Hold::LowerLeft},
      FitInto{nice(box.empty() ? 100 : box.width()), nice(box.empty() ? 100 : box.height())},
      Array{2, 2, {nice(kShare * size), nice(kShare * size)}},
      ArrayRound{6, box.empty() ? Point{} : Point{nice(box.low.x + box.width() / 2), nice(box.high.y + box.height())}}};
}

}  // namespace rim::app
