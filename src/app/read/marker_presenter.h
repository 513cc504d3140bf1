// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/read/record_loader.h"
#include "app/session/project_session.h"

#include <QObject>
#include <QPointF>

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace inchpeg::app
{

/// The axes that curves are shown on, in the person's units.
struct ShownAxes {
    PictureAxis x;
    PictureAxis y;
    Unit xUnit;
    Unit yUnit;
    [[nodiscard]] double shownX(double x_working) const { return xUnit.fromWorking(x_working); }
    [[nodiscard]] double shownY(double y_working) const { return yUnit.fromWorking(y_working); }
    [[nodiscard]] QPointF shown(double x_working, double y_working) const
    {
        return {shownX(x_working), shownY(y_working)};
    }
    /// True for a record that is drawn on these.
    [[nodiscard]] bool fits(const CurveOutline &outline) const
    {
        return outline.xAxis == x && outline.yAxis == y;
    }
};

/// The best axes that any record of the shown test has: strain before extension before time.
ShownAxes shownAxes(const ProjectSession &session);

/// How near points of the plot are for a person: plot units a picture point.
struct PlotScale {
    double x = 1.0;
    double y = 1.0;
};

/// A marker of the selected piece as a row of the card.
struct MarkerRow {
    std::string marker;
    QString name;
    QString meaning;
    QString place;      ///< "1.35 %", or empty where the record gives none
    QString automatic;  ///< the place as found, where it is placed by hand
    QString handReason; ///< reason, who and when; empty for an automatic one
};

/// Placing markers by hand, without widgets. A marker is first moved (drag, keys or a typed place), and its
/// effect is shown; it is kept once there is a reason. Markers go by their names.
class MarkerPresenter : public QObject
{
    Q_OBJECT
public:
    MarkerPresenter(ProjectSession &session, RecordLoader &loader, QObject *parent = nullptr);

    [[nodiscard]] std::vector<MarkerRow> rows() const;
    /// Only a piece whose record is at hand, in a project that may be changed.
    [[nodiscard]] bool canPlace() const;
    /// What the selected piece's test knows of a marker; nullptr where it has none of that name.
    [[nodiscard]] const MarkerKind *kindOf(std::string_view marker) const;

    /// Moves a marker to the nearest place at a point of the plot.
    void moveTo(std::string_view marker, QPointF at, PlotScale scale);
    /// Moves it by samples (or by hundredths of a percent for a strain) from where it is.
    void moveBy(std::string_view marker, int steps);
    /// Moves it to a typed place on the x axis; "none" for one that may be none. False where it was refused,
    /// which failed() has told.
    bool moveToTyped(std::string_view marker, const QString &text);

    [[nodiscard]] std::optional<std::string> moved() const;
    [[nodiscard]] QPointF movedPoint() const; ///< where the moved marker lies in the plot
    [[nodiscard]] QString movedText() const; ///< what it does: "Strength at 1.35 %: 38.2 MPa, found 41.0 MPa"
    bool keep(const QString &reason);
    void drop();
    bool backToAutomatic(std::string_view marker);
    bool allBackToAutomatic();

signals:
    void changed();

private:
    struct Moved {
        const MarkerKind *kind = nullptr;
        std::optional<double> at;
        std::optional<Reading> preview; ///< only for records short enough to read at once
    };
    void move(const MarkerKind &kind, std::optional<double> at);
    /// As HandMarker::at, by hand or found.
    [[nodiscard]] std::optional<double> placeOf(const MarkerKind &kind) const;
    [[nodiscard]] QString placeText(const MarkerKind &kind, std::optional<double> at) const;
    [[nodiscard]] const Piece *piece() const;

    ProjectSession &m_session;
    RecordLoader &m_loader;
    std::optional<Moved> m_moved;
    PieceId m_movedPiece;
};

QString markerLabel(const MarkerKind &kind);   ///< "Strength", "Modulus from"
QString markerMeaning(const MarkerKind &kind); ///< what it stands for

} // namespace inchpeg::app
