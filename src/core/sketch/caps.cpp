#include "core/sketch/caps.h"

#include <CGAL/Constrained_Delaunay_triangulation_2.h>
#include <CGAL/Exact_predicates_inexact_constructions_kernel.h>
#include <CGAL/Triangulation_face_base_with_info_2.h>
#include <CGAL/Triangulation_vertex_base_with_info_2.h>

#include <deque>
#include <limits>

namespace rim::sketch {
namespace {

using Kernel = CGAL::Exact_predicates_inexact_constructions_kernel;
constexpr std::uint32_t kNone = std::numeric_limits<std::uint32_t>::max();

/// How many rings lie round a face, modulo 2; -1: not known yet.
struct Inside {
  int odd = -1;
};
struct Number {
  std::uint32_t value = kNone;
};

using VertexBase = CGAL::Triangulation_vertex_base_with_info_2<Number, Kernel>;
using FaceInfo = CGAL::Triangulation_face_base_with_info_2<Inside, Kernel>;
using FaceBase = CGAL::Constrained_triangulation_face_base_2<Kernel, FaceInfo>;
using Structure = CGAL::Triangulation_data_structure_2<VertexBase, FaceBase>;
using Triangulation = CGAL::Constrained_Delaunay_triangulation_2<Kernel, Structure, CGAL::Exact_predicates_tag>;

/// Outside is even; each ring that is crossed changes it.
void markInside(Triangulation& triangulation) {
  std::deque<Triangulation::Face_handle> waiting{triangulation.infinite_face()};
  triangulation.infinite_face()->info().odd = 0;
  while (!waiting.empty()) {
    const Triangulation::Face_handle face = waiting.front();
    waiting.pop_front();
    for (int i = 0; i < 3; ++i) {
      const Triangulation::Face_handle other = face->neighbor(i);
      if (other->info().odd >= 0) continue;
      other->info().odd = face->info().odd ^ static_cast<int>(triangulation.is_constrained({face, i}));
      waiting.push_back(other);
    }
  }
}

/// An edge that two rings share is none: it is left by one of them and entered by the other.
void addRing(Triangulation& triangulation, const std::vector<Point>& ring) {
  for (std::size_t i = 0; i < ring.size(); ++i) {
    const Point a = ring[i];
    const Point b = ring[(i + 1) % ring.size()];
    if (!(a == b)) triangulation.insert_constraint({a.x, a.y}, {b.x, b.y});
  }
}

}  // namespace

Cap capOf(const std::vector<std::vector<Point>>& rings) {
  Triangulation triangulation;
  for (const std::vector<Point>& ring : rings) addRing(triangulation, ring);
  Cap cap;
  if (triangulation.dimension() < 2) return cap;
  markInside(triangulation);
  const auto numberOf = [&cap](const Triangulation::Vertex_handle& vertex) {
    std::uint32_t& number = vertex->info().value;
    if (number == kNone) {
      number = static_cast<std::uint32_t>(cap.points.size());
      cap.points.push_back({vertex->point().x(), vertex->point().y()});
    }
    return number;
  };
  for (const Triangulation::Face_handle face : triangulation.finite_face_handles()) {
    if (face->info().odd != 1) continue;
    const std::array<std::uint32_t, 3> corners{numberOf(face->vertex(0)), numberOf(face->vertex(1)),
                                               numberOf(face->vertex(2))};
    cap.triangles.push_back(corners);
    for (int i = 0; i < 3; ++i) {
      if (face->neighbor(i)->info().odd != 1)
        cap.rim.push_back(
            {corners[static_cast<std::size_t>((i + 1) % 3)], corners[static_cast<std::size_t>((i + 2) % 3)]});
    }
  }
  return cap;
}

}  // namespace rim::sketch
