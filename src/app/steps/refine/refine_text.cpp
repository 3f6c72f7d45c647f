#include "app/steps/refine/refine_text.h"

#include <QCoreApplication>

#include "app/widgets/counted.h"
#include "core/overloaded.h"

namespace rim::app {
namespace {

using namespace refine;

constexpr double kMostMm = 10'000;
constexpr double kLeastMm = 0.01;
constexpr double kMostCopiesTyped = 1000;

RefineNumber length(const char* name, double mm, double low = kLeastMm, double high = kMostMm) {
  return {refineText(name), mm, low, high, true, {}};
}
RefineNumber plain(const char* name, double value, double low, double high, const QString& unit = {}) {
  return {refineText(name), value, low, high, false, unit};
}

/// The numbers of a step, to be read and written alike.
template <class Visit>
void eachNumber(refine::Step& step, const Visit& visit) {
  std::visit(
      Overloaded{[&](refine::TrueUp& s) { visit(length("within", s.withinMm), s.withinMm); },
                 [&](refine::Symmetrize& s) { visit(length("within", s.withinMm), s.withinMm); },
                 [&](refine::Sharpen& s) { visit(length("missing up to", s.missingMm), s.missingMm); },
                 [&](refine::FilletCorners& s) { visit(length("radius", s.radiusMm), s.radiusMm); },
                 [&](refine::Simplify& s) { visit(length("within", s.withinMm, 0.001), s.withinMm); },
                 [](refine::UniteAll&) {},
                 [](refine::CombineWith&) {},
                 [&](refine::OffsetBy& s) { visit(length("by", s.mm, -kMostMm), s.mm); },
                 [&](refine::AddRing& s) {
                   visit(length("gap", s.gapMm), s.gapMm);
                   visit(length("width", s.widthMm), s.widthMm);
                 },
                 [&](refine::ThickenLines& s) { visit(length("to", s.mm, 0), s.mm); },
                 [&](refine::StrokesTo& s) { visit(length("up to", s.widestMm), s.widestMm); },
                 [&](refine::Rotate& s) { visit(plain("by", s.degrees, -360, 360, QStringLiteral("°")), s.degrees); },
                 [](refine::Reflect&) {},
                 [&](refine::ScaleBy& s) { visit(plain("times", s.factor, 0.001, 1000), s.factor); },
                 [&](refine::PlaceAt& s) {
                   visit(length("x", s.at.x, -kMostMm), s.at.x);
                   visit(length("y", s.at.y, -kMostMm), s.at.y);
                 },
                 [&](refine::FitInto& s) {
                   visit(length("width", s.widthMm), s.widthMm);
                   visit(length("height", s.heightMm), s.heightMm);
                 },
                 [&](refine::Array& s) {
                   visit(plain("columns", s.columns, 1, kMostCopiesTyped), s.columns);
                   visit(plain("rows", s.rows, 1, kMostCopiesTyped), s.rows);
                   visit(length("gap", s.gapsMm.x, -kMostMm), s.gapsMm.x);
                   visit(length("gap upwards", s.gapsMm.y, -kMostMm), s.gapsMm.y);
                 },
                 [&](refine::ArrayRound& s) {
                   visit(plain("copies", s.count, 1, kMostCopiesTyped), s.count);
                   visit(length("x", s.centre.x, -kMostMm), s.centre.x);
                   visit(length("y", s.centre.y, -kMostMm), s.centre.y);
                 },
                 [](refine::Remove&) {},
                 [](refine::Replace&) {},
                 [](refine::ByHand&) {},
                 [](refine::EditLayer&) {},
                 [](refine::HideLayer&) {},
                 [](refine::PutOnLayer&) {},
                 [](refine::LockLayer&) {},
                 [](refine::MoveLayer&) {},
                 [](refine::Group&) {}},
      step);
}

QStringList joinWords() {
  return {refineText("round corners"), refineText("mitred corners"), refineText("bevelled corners")};
}

}  // namespace

QString refineText(const char* source) { return QCoreApplication::translate("Refine", source); }

QString trueUpText(refine::TrueUpKind kind) {
  switch (kind) {
    case refine::TrueUpKind::Circle:
      return refineText("Nearly circles");
    case refine::TrueUpKind::Ellipse:
      return refineText("Nearly ellipses");
    case refine::TrueUpKind::Rectangle:
      return refineText("Nearly rectangles");
    case refine::TrueUpKind::RoundedRectangle:
      return refineText("Nearly rounded rectangles");
    case refine::TrueUpKind::Polygon:
      return refineText("Nearly regular polygons");
    case refine::TrueUpKind::Slot:
      return refineText("Nearly slots");
    case refine::TrueUpKind::Straight:
      return refineText("Nearly straight");
    case refine::TrueUpKind::Level:
      return refineText("Nearly level or upright");
    case refine::TrueUpKind::Parallel:
      return refineText("Nearly parallel or square");
    case refine::TrueUpKind::Radii:
      return refineText("Nearly equal radii");
    case refine::TrueUpKind::Concentric:
      return refineText("Nearly one centre");
    case refine::TrueUpKind::Spacing:
      return refineText("Nearly evenly spaced");
    case refine::TrueUpKind::Tangent:
      return refineText("Lines that nearly touch arcs");
    case refine::TrueUpKind::Repeats:
      return refineText("Parts that are nearly one part");
  }
  return {};
}

QString refineName(const refine::Step& step) {
  return std::visit(
      Overloaded{
          [](const refine::TrueUp& s) {
            return s.kinds.size() == 1 ? trueUpText(*s.kinds.begin()) + refineText(": made exact")
                                       : refineText("True up all");
          },
          [](const refine::Symmetrize&) { return refineText("Symmetry"); },
          [](const refine::Sharpen&) { return refineText("Sharpen corners"); },
          [](const refine::FilletCorners&) { return refineText("Round corners"); },
          [](const refine::Simplify&) { return refineText("Fewer nodes"); },
          [](const refine::UniteAll&) { return refineText("Unite"); },
          [](const refine::CombineWith& s) {
            return refineText("Combine with %1").arg(QString::fromStdString(s.name));
          },
          [](const refine::OffsetBy&) { return refineText("Offset"); },
          [](const refine::AddRing&) { return refineText("Border ring"); },
          [](const refine::ThickenLines&) { return refineText("Thicken lines"); },
          [](const refine::StrokesTo&) { return refineText("One line for each stroke"); },
          [](const refine::Rotate&) { return refineText("Rotate"); },
          [](const refine::Reflect& s) {
            return s.leftRight ? refineText("Mirror left and right") : refineText("Mirror top and bottom");
          },
          [](const refine::ScaleBy&) { return refineText("Scale"); },
          [](const refine::PlaceAt&) { return refineText("Place"); },
          [](const refine::FitInto&) { return refineText("Fit into"); },
          [](const refine::Array&) { return refineText("Rows of copies"); },
          [](const refine::ArrayRound&) { return refineText("Copies on a circle"); },
          [](const refine::Remove& s) {
            return refineText("Delete %1")
                .arg(counted(s.outlines.size(), refineText("1 outline"), refineText("%1 outlines")));
          },
          [](const refine::EditLayer& s) {
            return refineText("Layer %1: another name or colour").arg(QString::fromStdString(s.name));
          },
          [](const refine::HideLayer& s) { return refineText("Hide layer %1").arg(QString::fromStdString(s.name)); },
          [](const refine::PutOnLayer& s) {
            return refineText("On layer %1: %2")
                .arg(QString::fromStdString(s.layer.name),
                     counted(s.outlines.size(), refineText("1 outline"), refineText("%1 outlines")));
          },
          [](const refine::LockLayer& s) { return refineText("Lock layer %1").arg(QString::fromStdString(s.name)); },
          [](const refine::MoveLayer& s) { return refineText("Move layer %1").arg(QString::fromStdString(s.name)); },
          [](const refine::Group& s) {
            const QString what = counted(s.outlines.size(), refineText("1 outline"), refineText("%1 outlines"));
            return (s.together ? refineText("Group %1") : refineText("Ungroup %1")).arg(what);
          },
          [](const refine::ByHand& s) {
            return refineText("By hand: %1")
                .arg(counted(s.changes.size(), refineText("1 change"), refineText("%1 changes")));
          },
          [](const refine::Replace& s) {
            const QString kind = s.kind == "moved" ? refineText("Move") : refineText("Make exact");
            return refineText("%1: %2").arg(
                kind, counted(s.outlines.size(), refineText("1 outline"), refineText("%1 outlines")));
          }},
      step);
}

std::vector<RefineNumber> refineNumbers(const refine::Step& step) {
  std::vector<RefineNumber> numbers;
  refine::Step copy = step;
  eachNumber(copy, [&numbers](const RefineNumber& number, auto&) { numbers.push_back(number); });
  return numbers;
}

refine::Step withRefineNumber(refine::Step step, std::size_t which, double value) {
  std::size_t i = 0;
  eachNumber(step, [&](const RefineNumber& number, auto& field) {
    if (i++ != which) return;
    field = static_cast<std::remove_reference_t<decltype(field)>>(std::clamp(value, number.low, number.high));
  });
  return step;
}

RefineChoice refineChoice(const refine::Step& step) {
  const auto joins = [](refine::Joins chosen) {
    return RefineChoice{refineText("Corners"), joinWords(), static_cast<int>(chosen)};
  };
  if (const auto* s = std::get_if<refine::OffsetBy>(&step)) return joins(s->joins);
  if (const auto* s = std::get_if<refine::AddRing>(&step)) return joins(s->joins);
  if (const auto* s = std::get_if<refine::ThickenLines>(&step))
    return {refineText("Tips"), {refineText("round tips"), refineText("flat tips")}, static_cast<int>(s->tips)};
  if (const auto* s = std::get_if<refine::StrokesTo>(&step))
    return {refineText("Which line stays"),
            {refineText("outer edge"), refineText("inner edge"), refineText("middle")},
            static_cast<int>(s->keep) - static_cast<int>(mend::DoubleRule::Outer)};
  if (const auto* s = std::get_if<refine::Symmetrize>(&step))
    return {refineText("Whose shape counts"),
            {refineText("the cleaner part"), refineText("the mean"), refineText("the left"), refineText("the right"),
             refineText("the lower"), refineText("the upper")},
            static_cast<int>(s->from)};
  if (const auto* s = std::get_if<refine::PlaceAt>(&step))
    return {refineText("Which point comes there"),
            {refineText("lower left"), refineText("lower middle"), refineText("lower right"), refineText("left middle"),
             refineText("centre"), refineText("right middle"), refineText("upper left"), refineText("upper middle"),
             refineText("upper right")},
            static_cast<int>(s->hold)};
  return {};
}

refine::Step withRefineChoice(refine::Step step, int chosen) {
  if (auto* s = std::get_if<refine::OffsetBy>(&step)) s->joins = static_cast<refine::Joins>(chosen);
  if (auto* s = std::get_if<refine::AddRing>(&step)) s->joins = static_cast<refine::Joins>(chosen);
  if (auto* s = std::get_if<refine::ThickenLines>(&step)) s->tips = static_cast<refine::Tips>(chosen);
  if (auto* s = std::get_if<refine::StrokesTo>(&step))
    s->keep = static_cast<mend::DoubleRule>(chosen + static_cast<int>(mend::DoubleRule::Outer));
  if (auto* s = std::get_if<refine::Symmetrize>(&step)) s->from = static_cast<refine::SymmetryFrom>(chosen);
  if (auto* s = std::get_if<refine::PlaceAt>(&step)) s->hold = static_cast<refine::Hold>(chosen);
  return step;
}

std::vector<refine::Step> refineSteps(const Box& box) {
  const double size = box.empty() ? 100 : std::max(box.width(), box.height());
  const auto nice = [](double mm) { return std::max(0.1, std::round(mm * 10) / 10); };
  constexpr double kShare = 0.03;
  return {refine::Sharpen{0.5},
          refine::FilletCorners{nice(kShare * size)},
          refine::Symmetrize{},
          refine::Simplify{0.05, CurveForm::Arcs},
          refine::UniteAll{},
          refine::OffsetBy{nice(kShare * size / 2), refine::Joins::Round},
          refine::AddRing{nice(kShare * size), nice(kShare * size), refine::Joins::Round},
          refine::ThickenLines{2, refine::Joins::Round, refine::Tips::Round},
          refine::StrokesTo{mend::DoubleRule::Centre, 3},
          refine::Rotate{90},
          refine::Reflect{true},
          refine::Reflect{false},
          refine::ScaleBy{2},
          refine::PlaceAt{{0, 0}, refine::Hold::LowerLeft},
          refine::FitInto{nice(box.empty() ? 100 : box.width()), nice(box.empty() ? 100 : box.height())},
          refine::Array{2, 2, {nice(kShare * size), nice(kShare * size)}},
          refine::ArrayRound{
              6, box.empty() ? Point{} : Point{nice(box.low.x + box.width() / 2), nice(box.high.y + box.height())}}};
}

}  // namespace rim::app
