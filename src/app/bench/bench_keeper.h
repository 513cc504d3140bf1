// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

#include "app/session/project_session.h"
#include "core/logbook/typed_record.h"

#include <QObject>

#include <functional>

namespace inchpeg::app
{

/// Brings what was recorded or typed on the bench into the project as raw data, and makes it the record of
/// its piece.
class BenchKeeper : public QObject
{
    Q_OBJECT
public:
    explicit BenchKeeper(ProjectSession &session, QObject *parent = nullptr);

    /// What else changes about the piece, in the same step.
    using Change = std::function<void(Piece &)>;

    [[nodiscard]] bool isBusy() const { return m_pending > 0; }
    /// The file on the bench goes once its bytes are in the project.
    void keepFile(const QString &file, PieceId piece, const QString &name);
    /// gauge: what was read, in a word or two. False, with a sentence told, for what is no such value.
    bool keepTyped(PieceId piece, const std::vector<TypedRow> &rows, const std::string &gauge,
                   const QString &step, Change change = {});

signals:
    /// Also where it could not be kept: isLinked tells.
    void kept(inchpeg::PieceId piece, bool isLinked);
    void told(const QString &sentence);

private:
    void start(PieceId piece, const std::string &name, std::shared_ptr<const std::string> bytes,
               const QString &file, const QString &step, Change change);
    void link(StudyId study, PieceId piece, const QString &file, const QString &step, const Change &change,
              const KeptRawFiles &stored);

    ProjectSession &m_session;
    int m_pending = 0; ///< that are on their way, one after the other
};

} // namespace inchpeg::app
